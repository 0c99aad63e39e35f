import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Modal } from 'antd';
import styles from './dialog.module.css';

const typedInto = 'input:not([type=checkbox]):not([type=radio]):not([type=file]), textarea';

/**
 * A dialog that is there at once: what is typed right after the key that opened it lands in its first field, not on the
 * way to it. Without a field the focus is the dialog's own.
 */
export function Dialog({
  title,
  onClose,
  width,
  high = false,
  children,
}: {
  readonly title: string;
  readonly onClose: () => void;
  readonly width?: number;
  /** Begins near the top, for what takes most of the screen. */
  readonly high?: boolean;
  readonly children: ReactNode;
}) {
  const [opener] = useState(() => document.activeElement);
  // Whoever turns back is where he was; after an act the focus goes to what comes next.
  const turnBack = () => {
    onClose();
    requestAnimationFrame(() => {
      if (opener instanceof HTMLElement && opener.isConnected) opener.focus();
    });
  };
  return (
    <Modal
      open
      title={title}
      onCancel={turnBack}
      footer={null}
      destroyOnHidden
      transitionName=""
      maskTransitionName=""
      {...(width === undefined ? {} : { width })}
      {...(high ? { className: styles.high ?? '' } : {})}
    >
      <FirstFieldFocused>{children}</FirstFieldFocused>
    </Modal>
  );
}

/**
 * Inside the dialog, so that its effect runs before the dialog's own, which leaves a focus that is inside where it is.
 */
function FirstFieldFocused({ children }: { readonly children: ReactNode }) {
  const content = useRef<HTMLDivElement>(null);
  useEffect(() => {
    content.current?.querySelector<HTMLElement>(typedInto)?.focus();
  }, []);
  return <div ref={content}>{children}</div>;
}
