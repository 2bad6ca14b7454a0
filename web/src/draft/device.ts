/** The names of this browser and of this tab: unsaved work belongs to a tab, and outlives it. */

const CHANNEL = "nodulant-tabs";
/** Other tabs of this browser answer within so long. */
const ANSWER_MS = 120;

const random = () => Array.from(crypto.getRandomValues(new Uint8Array(9)), (b) => (b % 36).toString(36)).join("");

/** A name that is kept in a storage, or lives as long as the page where there is none. */
function named(storage: () => Storage, key: string, make: () => string): string {
  try {
    const known = storage().getItem(key);
    if (known) return known;
    const made = make();
    storage().setItem(key, made);
    return made;
  } catch {
    return make();
  }
}

const machine = named(() => localStorage, "nodulant-browser", random);
const fresh = () => `${machine}.${random()}`;
let own = named(() => sessionStorage, "nodulant-tab", fresh);

/** This tab's name; it begins with the browser's. */
export const thisTab = () => own;
/** Whether a tab is, or was, one of this browser's. */
export const isHere = (tab: string) => tab.startsWith(`${machine}.`);

const channel = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel(CHANNEL);
channel?.addEventListener("message", ({ data }) => {
  if (data === "who is there") channel.postMessage({ here: own });
});

/** The other tabs of this browser that are open; a copied tab, which has another's name, takes a new one. */
export function openTabs(): Promise<Set<string>> {
  const found = new Set<string>();
  if (!channel) return Promise.resolve(found);
  return new Promise((resolve) => {
    const hear = ({ data }: MessageEvent) => {
      if (typeof data?.here === "string") found.add(data.here);
    };
    channel.addEventListener("message", hear);
    channel.postMessage("who is there");
    setTimeout(() => {
      channel.removeEventListener("message", hear);
      if (found.has(own)) {
        own = fresh();
        try {
          sessionStorage.setItem("nodulant-tab", own);
        } catch {
          // it lives as long as the page then
        }
      }
      resolve(found);
    }, ANSWER_MS);
  });
}
