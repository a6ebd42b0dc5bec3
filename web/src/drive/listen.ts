/** A few seconds from the microphone as a WAV file, where the browser allows it. */

const SECONDS = 2.5;
const HEAD_BYTES = 44;

/** Whether there is anything to listen with; only a page from this machine, or over TLS, may. */
export const canListen = () => typeof navigator.mediaDevices?.getUserMedia === 'function';

/** Listens for a few seconds. Throws where nobody allows it, or nothing is plugged in. */
export async function listen(): Promise<File> {
  const stream = await navigator.mediaDevices.getUserMedia({
    audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
  });
  const context = new AudioContext();
  try {
    const recorder = new MediaRecorder(stream);
    const parts: Blob[] = [];
    recorder.ondataavailable = (event) => parts.push(event.data);
    const ended = new Promise<void>((done) => {
      recorder.onstop = () => done();
    });
    recorder.start();
    setTimeout(() => recorder.stop(), SECONDS * 1000);
    await ended;
    const heard = await context.decodeAudioData(await new Blob(parts).arrayBuffer());
    return new File([wav(heard.getChannelData(0), heard.sampleRate)], 'span.wav', { type: 'audio/wav' });
  } finally {
    for (const track of stream.getTracks()) track.stop();
    await context.close();
  }
}

/** One channel of 16 bits, as the format has it. */
function wav(samples: Float32Array, rate: number): ArrayBuffer {
  const view = new DataView(new ArrayBuffer(HEAD_BYTES + samples.length * 2));
  const put = (at: number, text: string) => {
    for (const [n, letter] of [...text].entries()) view.setUint8(at + n, letter.charCodeAt(0));
  };
  put(0, 'RIFF');
  view.setUint32(4, HEAD_BYTES - 8 + samples.length * 2, true);
  put(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * 2, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  put(36, 'data');
  view.setUint32(40, samples.length * 2, true);
  for (const [n, value] of samples.entries())
    view.setInt16(HEAD_BYTES + n * 2, Math.max(-1, Math.min(1, value)) * 32767, true);
  return view.buffer;
}
