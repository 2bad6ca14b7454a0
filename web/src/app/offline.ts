/** Keep what is opened for times without the network; browsers allow it over https alone. */
export function keepForOffline(): void {
  if (window.location.protocol === "https:") void navigator.serviceWorker?.register("/sw.js");
}

/** Somebody else comes to this browser: what was kept of the jobs is thrown away. */
export function forgetKept(): void {
  navigator.serviceWorker?.controller?.postMessage("forget");
}
