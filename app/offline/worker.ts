/**
 * Asks the browser to keep the application for when the network is away. Where it cannot (no
 * HTTPS, an old browser), screens still run without the network as long as they stay open.
 */
export function registerWorker(): void {
  if (!("serviceWorker" in navigator)) return;
  navigator.serviceWorker.register("/sw.js").catch(() => {
    // Without it a reload needs the network; what is logged is kept all the same.
  });
}
