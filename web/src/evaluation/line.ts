import { askedAtOnce, Refused } from "../api/client";
import type { Draft } from "../draft/document";
import { shownDraft, suspensionSeen, useBench } from "../draft/store";
import { atAGlance, merged, withTravel } from "./merge";
import { show, showRefusal, useShown } from "./shown";

/** Cases that each rail answers as a beam; the others need the frame in space. */
const BEAM_CASES = ["static", "bump"];

/** A hand that has not moved for this long is answered in full. */
const RESTED_MS = 150;

/** The questions of one bench: one in flight, the newest waits, older ones are dropped. */
export class Line {
  private inFlight = false;
  private waiting = false;
  private sequence = 0;
  private resting = 0;
  private over = false;

  /** The bench was left: what is still under way is for nobody. */
  end(): void {
    this.over = true;
    clearTimeout(this.resting);
  }

  /** Evaluate what is on the bench. */
  async run(rested = false): Promise<void> {
    clearTimeout(this.resting);
    if (this.over) return;
    if (this.inFlight) {
      this.waiting = true;
      return;
    }
    this.inFlight = true;
    const draft = shownDraft(useBench.getState());
    const draw = await this.asked(draft, rested).catch((error: unknown) => () => {
      if (!(error instanceof Refused)) throw error;
      showRefusal(error, draft);
    });
    this.inFlight = false;
    // the next question is on its way before this answer is drawn: it asks for the newest draft, and both take their time
    if (this.waiting) {
      this.waiting = false;
      void this.run();
    }
    if (!this.over) draw();
  }

  private whenItRests(): void {
    clearTimeout(this.resting);
    this.resting = window.setTimeout(() => {
      if (!this.inFlight && useBench.getState().gesture) void this.run(true);
    }, RESTED_MS);
  }

  /** Ask for the figures of a draft; what comes back draws them. */
  private async asked(draft: Draft, rested: boolean): Promise<() => void> {
    const { jobId, gesture, stage, rollDeg } = useBench.getState();
    const { design, survey } = draft;
    const at = gesture?.at ?? 0;
    if (gesture && (stage === "travel" || stage === "steer") && useShown.getState().result) {
      // a hand that moves is answered at a glance; when it rests, or where the axle leans, with everything
      const glance = !rested && rollDeg === 0;
      const only = glance ? suspensionSeen(useBench.getState()) : null;
      // a glance is asked for without the things that stand around; work on the rails moves what rides on them
      const moving = glance ? { ...design, obstacles: [] } : design;
      const moved = await askedAtOnce("/api/travel", { job_id: jobId, design: moving, survey, glance, only });
      return () => {
        const old = useShown.getState().result;
        if (old) show(glance ? atAGlance(old, moved) : withTravel(old, moved), draft, at, true, glance);
        if (glance) this.whenItRests();
      };
    }
    const next = await askedAtOnce("/api/evaluate", this.questionOf(draft));
    return () => {
      const old = useShown.getState().result;
      show(gesture && old ? merged(old, next) : next, draft, at, gesture !== null);
    };
  }

  private questionOf({ design, survey }: Draft) {
    const { jobId, side, stationMm, gesture, loadCase, loadState } = useBench.getState();
    // what a drag leaves out is taken from the answer before it
    const dragging = gesture !== null && useShown.getState().result !== null;
    this.sequence += 1;
    return {
      job_id: jobId,
      design,
      survey,
      slim: dragging,
      sequence: this.sequence,
      want: {
        frame: !dragging || !BEAM_CASES.includes(loadCase),
        interim: !dragging,
        along: !dragging,
        travel: !dragging,
        strips: true,
        parts: true,
        steps: !dragging,
        readings: !dragging,
        as_built: !dragging,
        case: loadCase,
        load_state: loadState,
        strip_side: side,
        section: { side, x_mm: stationMm },
      },
    };
  }
}
