import { useCallback, useRef } from 'react';
import type { StyleProp, TextInput, ViewStyle } from 'react-native';
import { Field } from './Field';
import { useKey } from './useKey';

const MOST = 60;

/** A field that filters a list; on a keyboard, the stroke key goes to it. */
export function FindField(props: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly style?: StyleProp<ViewStyle>;
}) {
  const input = useRef<TextInput>(null);
  useKey(
    useCallback((key) => {
      if (key !== '/' || !input.current) return false;
      input.current.focus();
      return true;
    }, []),
  );
  return <Field {...props} most={MOST} inputRef={input} />;
}
