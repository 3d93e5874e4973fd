import { NativeSelect, type NativeSelectProps } from '@mantine/core';
import { theOneOf } from '@yunta/core/known/keys';

interface ChoiceProps<T extends string> extends Omit<NativeSelectProps, 'data' | 'value' | 'onChange'> {
  readonly data: readonly (T | { readonly value: T; readonly label: string })[];
  readonly value: T;
  readonly choose: (value: T) => void;
}

/** One of a few words, in the browser's own list. */
export const Choice = <T extends string>({ data, value, choose, ...rest }: ChoiceProps<T>) => {
  const values = data.map((one) => (typeof one === 'string' ? one : one.value));
  return (
    <NativeSelect
      size="xs"
      {...rest}
      data={[...data]}
      value={value}
      onChange={(e) => choose(theOneOf(values, e.currentTarget.value))}
    />
  );
};
