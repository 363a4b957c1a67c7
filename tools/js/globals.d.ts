// Shipped as a plain script, see web/static/vendor.
declare const bootstrap: any;

// The scripts look elements up by id: which kind each is stands in the template. So what forms, links, dialogs and
// buttons have is known of every element; that a name is misspelt is still found.
interface EventTarget { closest(selector: string): any; value: any; defaultValue: any; files: any; form: any; dataset: any; checked: any; id: any; }
interface Element { dataset: DOMStringMap; focus(options?: FocusOptions): void; value: any; disabled: any; hidden: any; name: any; href: any; }
interface HTMLElement { value: any; href: any; open: any; disabled: any; form: any; checked: any; max: any; min: any; close(): void; showModal(): void; select(): void; reset(): void; download: any; }
