import './theme/styles.css';

// What is asked for by itself starts in a task of its own: the page gets its turn between the library and the program.
void import('react-dom/client');
void import('./start.tsx').then(({ start }) => start());
