import { StrictMode, startTransition } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { earlyChanges } from "./ui/early-changes";

// The scrim of a dialog makes a style element; by this name its library finds the page's nonce.
Object.assign(globalThis, {
  __webpack_nonce__: document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce,
});

// What this browser still holds of the log is sent from whatever page it is on.
const sendWhatWaits = () => {
  void import("./offline/browser").then((own) => own.startSending());
  // Stations, floors and cards load without the network once the browser holds them.
  if (/^\/(rack|floor|card)(\/|$)/.test(location.pathname))
    void import("./offline/worker").then((own) => own.registerWorker());
};
if ("requestIdleCallback" in globalThis) requestIdleCallback(sendWhatWaits);
else setTimeout(sendWhatWaits, 1000);

const sayEarlyChanges = earlyChanges(document);
// The page says what it shows once it answers.
new MutationObserver((_, watching) => {
  watching.disconnect();
  sayEarlyChanges();
}).observe(document.documentElement, { attributeFilter: ["data-shown"] });

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <HydratedRouter />
    </StrictMode>,
  );
});
