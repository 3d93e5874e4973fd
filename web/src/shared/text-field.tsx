import { TextInput, type TextInputProps } from '@mantine/core';
import { wrongText } from '@yunta/core/rig/limits';

/** Whether a text that somebody has to type is there and can be kept. */
export const fits = (text: string, most: number): boolean =>
  text.trim() !== '' && wrongText(text.trim(), most) === undefined;

/** A field that says beside it what is too long, and keeps it: nothing that was typed is cut. */
export const TextField = ({
  most,
  error,
  ...props
}: TextInputProps & { readonly most: number; readonly value: string }) => (
  <TextInput {...props} error={error ?? wrongText(props.value.trim(), most)} />
);
