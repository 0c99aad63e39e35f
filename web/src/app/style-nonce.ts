/** By what the server's content policy knows the styles that this page makes; undefined where it has none. */
export const styleNonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce || undefined;

type Create = (this: Document, name: string, options?: ElementCreationOptions) => Element;

/** Gives the nonce to every style that a package makes, also to those of packages that know of none. */
export function signStyles(): void {
  if (styleNonce === undefined) return;
  const create = Reflect.get(document, 'createElement') as Create;
  const signed: Create = function signed(name, options) {
    const element = create.call(this, name, options);
    if (element instanceof HTMLStyleElement) element.nonce = styleNonce;
    return element;
  };
  Object.assign(document, { createElement: signed });
}
