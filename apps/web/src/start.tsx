import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './routes/App.tsx';
import { applyTheme } from './theme/theme.ts';

export function start(): void {
  applyTheme();
  createRoot(document.getElementById('root') as HTMLElement).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}
