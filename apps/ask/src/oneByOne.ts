import { answerLine } from './answers.ts';

/** Answers one line after another; whoever asks ends this process when it takes too long. */
process.on('message', (line: string) => process.send?.(answerLine(line)));
process.on('disconnect', () => process.exit());
process.send?.('ready');
