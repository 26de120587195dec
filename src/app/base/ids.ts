/** A fresh id for anything in a document. */
export const newId = <T extends string>(): T => crypto.randomUUID().replaceAll('-', '').slice(0, 20) as T;
