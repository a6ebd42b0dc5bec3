/** Says what is asked next, for whoever has both hands full; off unless asked for, kept in this browser. */
import { useLocalStorage } from '@mantine/hooks';
import { useEffect } from 'react';

export function useSpoken() {
  return useLocalStorage({ key: 'gurvo.spoken', defaultValue: false, getInitialValueInEffect: false });
}

export function useSpeak(words: string): void {
  const [isOn] = useSpoken();
  useEffect(() => {
    if (!isOn || !words || !window.speechSynthesis) return;
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(words));
  }, [isOn, words]);
}
