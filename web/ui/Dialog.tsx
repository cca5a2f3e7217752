import { X } from "lucide-react";
import { type ReactNode, useEffect, useId, useRef } from "react";

/**
 * A dialog over the page: the browser keeps the focus in it, gives it back afterwards, and closes it with Escape. Where it
 * asks for something in writing, it begins there.
 * @param onClose left out where it must be answered
 */
export function Dialog({
  title,
  role = "dialog",
  wide = false,
  onClose,
  children,
}: {
  title: string;
  role?: "dialog" | "alertdialog";
  wide?: boolean;
  onClose?: () => void;
  children: ReactNode;
}) {
  const dialog = useRef<HTMLDialogElement>(null);
  const id = useId();
  useEffect(() => {
    const { current } = dialog;
    // Where there is no modal dialog, as in tests without a browser, it is shown plainly.
    if (typeof current?.showModal === "function") current.showModal();
    else current?.setAttribute("open", "");
    // The browser would begin at the button that closes it.
    current?.querySelector("input")?.focus();
    return () => {
      if (typeof current?.close === "function") current.close();
    };
  }, []);
  return (
    <dialog
      ref={dialog}
      role={role}
      aria-labelledby={id}
      className="modal"
      // The browser's own way to close it would leave the page's state behind.
      onCancel={(event) => event.preventDefault()}
      onKeyDown={(event) => {
        if (event.key !== "Escape") return;
        event.preventDefault();
        onClose?.();
      }}
    >
      <div className={`modal-box ${wide ? "max-w-3xl" : ""}`}>
        <header className="flex items-baseline justify-between gap-4">
          <h2 id={id} className="text-lg font-semibold">
            {title}
          </h2>
          {onClose && (
            <button type="button" className="btn btn-ghost btn-sm" onClick={onClose}>
              <X aria-hidden="true" size={16} />
              Close
            </button>
          )}
        </header>
        {children}
      </div>
    </dialog>
  );
}
