import workerAddress from 'virtual:analysis-worker';
import type { AnswerMessage } from '../workers/messages.ts';
import { AnswerDesk } from './answerDesk.ts';

/** Hard questions at a time, on the largest machines. */
const mostHard = 3;

/** The desk of a browser window, with a real worker. */
export const browserDesk = (onNews: () => void): AnswerDesk =>
  new AnswerDesk({
    hire: (onAnswer, onBreakdown) => {
      const worker = new Worker(workerAddress, { type: 'module' });
      worker.onmessage = ({ data }: MessageEvent<AnswerMessage>) => onAnswer(data);
      // What goes wrong in its program tells what; a program that is not there does not.
      worker.onerror = (event) => onBreakdown(event instanceof ErrorEvent ? 'fault' : 'notLoaded');
      return {
        ask: (message) => worker.postMessage(message),
        end: () => worker.terminate(),
      };
    },
    schedule: (callback, milliseconds) => setTimeout(callback, milliseconds),
    cancel: (timer) => clearTimeout(timer as ReturnType<typeof setTimeout>),
    // One core is left to the page, whose every frame has to be in time.
    mostHard: Math.max(1, Math.min(mostHard, navigator.hardwareConcurrency - 1)),
    onNews,
  });
