import { type ReactNode, useEffect, useRef } from "react";

/** A sheet over the rack screen; Escape or Close puts it away. */
export function Sheet({
  title,
  onClose,
  wide = false,
  children,
}: {
  title: string;
  onClose: () => void;
  /** For a long list: as wide as a tablet lets it. */
  wide?: boolean;
  children: ReactNode;
}) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    dialog.current?.showModal();
  }, []);
  return (
    <dialog
      ref={dialog}
      onClose={onClose}
      aria-label={title}
      className={`m-auto ${wide ? "w-[min(96vw,960px)]" : "w-[min(94vw,680px)]"} rounded border border-control bg-base-100 p-5 text-[17px] text-base-content backdrop:bg-black/50`}
    >
      <div className="flex items-baseline justify-between">
        <h2 className="text-[22px]">{title}</h2>
        <button type="button" className="btn min-h-[64px]" onClick={() => dialog.current?.close()}>
          Close
        </button>
      </div>
      {children}
    </dialog>
  );
}
