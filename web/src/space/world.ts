import * as THREE from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import type { AxleTravel, BodyPoint, FrameSolids, Obstacle } from "../api/types";
import { placersOf } from "../travel/pose";
import { type Vec, vec } from "../travel/space";
import { KNUCKLE } from "../travel/turned";
import { barMesh, inkOf, layBar, markMesh, obstacleMeshes, prismMesh, put, standTyre, tyreMesh } from "./meshes";

export type Pose = { travelMm: number; rollDeg: number; steer: number };
export type EyeName = "corner" | "left" | "front" | "above" | "behind";

const EYES: Record<EyeName, Vec> = {
  corner: [-0.75, 0.85, 0.5],
  left: [0, -1, 0.02],
  front: [-1, 0, 0.02],
  above: [-0.001, 0, 1],
  behind: [0.75, 0.85, 0.5],
};

/** Radius of the mark over its distance. */
const MARK_SHARE = 0.009;

type Moving = { axle: AxleTravel; set: (pose: Pose) => void };

/** The scene: frame, cuts and plates that stand, axles that follow the travel bar, what the user placed. */
export class World {
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.PerspectiveCamera(32, 1, 20, 30_000);
  private readonly renderer: THREE.WebGLRenderer;
  private readonly controls: OrbitControls;
  private readonly frame = new THREE.Group();
  private readonly axles = new THREE.Group();
  private readonly things = new THREE.Group();
  private readonly mark = markMesh();
  private moving: Moving[] = [];
  private asked = false;

  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, preserveDrawingBuffer: true });
    this.renderer.setPixelRatio(Math.min(devicePixelRatio, 2));
    this.controls = new OrbitControls(this.camera, canvas);
    this.controls.enableDamping = false;
    this.controls.addEventListener("change", () => this.draw());
    const sun = new THREE.DirectionalLight(0xffffff, 1.9);
    sun.position.set(-2000, 4000, 2500);
    const back = new THREE.DirectionalLight(0xffffff, 0.7);
    back.position.set(2500, 1500, -2500);
    this.scene.add(new THREE.AmbientLight(0xffffff, 1.1), sun, back, this.frame, this.axles, this.things, this.mark);
    this.mark.visible = false;
  }

  /** Fit the canvas to its place on the page. */
  size(width: number, height: number): void {
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / Math.max(height, 1);
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  /** Rails with their cuts, and what is welded to them. */
  showFrame(solids: FrameSolids): void {
    clear(this.frame);
    for (const rail of solids.rails) this.frame.add(prismMesh(rail.prisms, `${rail.side} rail`, "faint"));
    for (const own of solids.work) this.frame.add(prismMesh(own.prisms, own.name, "added"));
    for (const [ax, ay, az, bx, by, bz, radius] of solids.arches) {
      const edge = barMesh(Math.max(radius ?? 3, 5), "placed");
      edge.name = "wheel arch";
      layBar(edge, [ax ?? 0, ay ?? 0, az ?? 0], [bx ?? 0, by ?? 0, bz ?? 0]);
      this.frame.add(edge);
    }
    this.draw();
  }

  /** Everything that an axle carries, ready to follow the travel bar. */
  showAxles(axles: readonly AxleTravel[]): void {
    clear(this.axles);
    this.moving = axles.filter((a) => a.hub).map((axle) => this.mover(axle));
  }

  private mover(axle: AxleTravel): Moving {
    const members = axle.members.flatMap((member) => {
      const mirrors = axle.independent && !member.name.endsWith(", left") ? [false, true] : [false];
      return mirrors.map((mirrored) => {
        const mesh = barMesh(Math.max(member.diameter_mm / 2, 6), member.kind === "spring" ? "added" : "ink");
        mesh.name = member.name;
        this.axles.add(mesh);
        return { member, mirrored, mesh };
      });
    });
    const tyres = ([1, -1] as const).map((side) => {
      const mesh = tyreMesh((axle.radius_mm ?? 330) * 1.04, axle.tyre_width_mm ?? 215);
      mesh.name = side > 0 ? "tyre, right" : "tyre, left";
      this.axles.add(mesh);
      return { side, mesh };
    });
    const tube = axle.independent ? null : barMesh(38, "faint");
    if (tube) this.axles.add(tube);
    return {
      axle,
      set: (pose) => {
        const { right, left } = placersOf(axle, pose.travelMm, pose.rollDeg, pose.steer);
        for (const { member, mirrored, mesh } of members) {
          const at = (p: BodyPoint) => flipped((mirrored ? left : right)(p), mirrored);
          layBar(mesh, at(member.a), at(member.b));
        }
        const ends = tyres.map(({ side, mesh }) => {
          const wheel = wheelOf(axle, side, side > 0 ? right : left);
          standTyre(mesh, wheel.centre, wheel.out);
          return wheel.centre;
        });
        if (tube && ends[0] && ends[1]) layBar(tube, ends[0], ends[1]);
      },
    };
  }

  /** What the user placed. */
  showThings(obstacles: readonly Obstacle[]): void {
    clear(this.things);
    for (const obstacle of obstacles) this.things.add(...obstacleMeshes(obstacle));
    this.draw();
  }

  /** Let the axles follow; each within its own travel. */
  pose(pose: Pose): void {
    for (const { axle, set } of this.moving) {
      const [low, high] = [axle.travel_mm[0] ?? 0, axle.travel_mm.at(-1) ?? 0];
      set({ ...pose, travelMm: Math.min(Math.max(pose.travelMm, low), high) });
    }
    this.draw();
  }

  /** Mark a place, or none. */
  point(at: readonly number[] | null): void {
    this.mark.visible = at !== null;
    if (at) this.mark.position.copy(put(vec(at)));
    this.draw();
  }

  /** Look from a side at everything, or at one place. */
  look(from: EyeName, at?: readonly number[]): void {
    const box = new THREE.Box3().setFromObject(this.frame).union(new THREE.Box3().setFromObject(this.axles));
    const middle = at ? put(vec(at)) : box.isEmpty() ? new THREE.Vector3() : box.getCenter(new THREE.Vector3());
    const size = at ? 1100 : box.isEmpty() ? 3000 : box.getSize(new THREE.Vector3()).length();
    const way = put(EYES[from]).normalize();
    const far =
      (0.62 * size) / Math.tan((this.camera.fov * Math.PI) / 360) / Math.max(Math.min(this.camera.aspect, 1.6), 0.6);
    this.controls.target.copy(middle);
    this.camera.position.copy(middle).addScaledVector(way, far * 0.8);
    this.controls.update();
    this.draw();
  }

  /** Draw once in the next frame, however often it was asked. */
  draw(): void {
    if (this.asked) return;
    this.asked = true;
    requestAnimationFrame(() => {
      this.asked = false;
      this.scene.background = inkOf("sheet");
      // the mark is as large on the screen from near and from far
      this.mark.scale.setScalar(this.camera.position.distanceTo(this.mark.position) * MARK_SHARE);
      this.renderer.render(this.scene, this.camera);
    });
  }

  /** Give back what the graphics card holds. */
  end(): void {
    for (const group of [this.frame, this.axles, this.things]) clear(group);
    this.controls.dispose();
    this.renderer.dispose();
  }
}

const flipped = ([x, y, z]: Vec, mirrored: boolean): Vec => [x, mirrored ? -y : y, z];

/** A wheel's centre and a point outward on its axis. */
function wheelOf(axle: AxleTravel, side: 1 | -1, place: (p: BodyPoint) => Vec) {
  const [x, , z] = vec(axle.hub);
  const half = axle.half_track_mm ?? 700;
  const mirrored = axle.independent && side < 0;
  const knuckled = axle.steer != null && !axle.independent;
  const body = knuckled ? (side > 0 ? KNUCKLE : KNUCKLE + 1) : 0;
  const at = (out: number) =>
    flipped(place({ body, x_mm: x, y_mm: mirrored ? half + out : side * (half + out), z_mm: z }), mirrored);
  return { centre: at(0), out: at(100) };
}

function clear(group: THREE.Group): void {
  for (const child of [...group.children]) {
    group.remove(child);
    if (child instanceof THREE.Mesh) {
      child.geometry.dispose();
      for (const m of [child.material].flat()) m.dispose();
    }
  }
}
