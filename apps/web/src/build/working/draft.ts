/**
 * A half-typed given survives a reload (in this window's storage) and a closed window (in the
 * browser's). Each window keeps its own; a new one begins with what was typed last.
 */
export function keepDraft(key: string, text: string): void {
  for (const storage of [sessionStorage, localStorage]) {
    try {
      storage.setItem(key, text);
    } catch {
      // Storage may be full or forbidden; the text is still in its field.
    }
  }
}

export const recallDraft = (key: string): string =>
  sessionStorage.getItem(key) ?? localStorage.getItem(key) ?? '';
