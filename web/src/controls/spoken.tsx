import { looks } from '../looks/looks.ts';
/**
 * What is read out to those who listen whenever it changes: the verdict, or what comes next. Nothing is said of what
 * stands there when a screen opens, which is read as it is.
 */
export function Spoken({ children }: { readonly children: string }) {
  return (
    <div className={looks.visuallyHidden} role="status" data-spoken>
      {children}
    </div>
  );
}
