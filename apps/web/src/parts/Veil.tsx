/** What dims the screen behind a dialog, by day and by night. */
export const Veil = () => <div className="fixed inset-0 bg-veil" aria-hidden />;
