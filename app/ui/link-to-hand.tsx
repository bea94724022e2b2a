import { useState } from "react";

/** An address as text and as a picture for a camera; `problem` where others cannot open it. */
export interface HandedLink {
  url: string;
  qr: { size: number; path: string };
  problem: string | undefined;
}

/** A picture to point a camera at. Dark on light in both themes: cameras read no other. */
export function QrCode({ qr, label }: { qr: HandedLink["qr"]; label: string }) {
  return (
    <svg
      viewBox={`0 0 ${qr.size} ${qr.size}`}
      role="img"
      aria-label={label}
      className="w-44 max-w-full rounded border border-control"
      shapeRendering="crispEdges"
    >
      <rect width={qr.size} height={qr.size} fill="#fff" />
      <path d={qr.path} fill="#000" />
    </svg>
  );
}

/** A link to hand to somebody: to be photographed, copied or read out. */
export function LinkToHand({ link, label }: { link: HandedLink; label: string }) {
  const [copied, setCopied] = useState(false);
  return (
    <div className="grid gap-2">
      <QrCode qr={link.qr} label={`QR code: ${label}`} />
      <label className="block">
        <span className="mb-0.5 block text-muted">{label}</span>
        <input
          readOnly
          value={link.url}
          className="field w-full text-sm"
          data-testid="handed-link"
          onFocus={(event) => event.currentTarget.select()}
        />
      </label>
      {link.problem ? (
        <p className="border-l-[3px] border-secondary pl-2 text-sm">{link.problem}</p>
      ) : null}
      <button
        type="button"
        className="btn btn-sm justify-self-start"
        onClick={async () => {
          // Without HTTPS a browser keeps its clipboard to itself: the text stands there to copy.
          await navigator.clipboard?.writeText(link.url).catch(() => {});
          setCopied(navigator.clipboard !== undefined);
        }}
      >
        {copied ? "Copied" : "Copy the link"}
      </button>
    </div>
  );
}
