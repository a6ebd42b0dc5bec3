/** Light or dark. */
import { UnstyledButton, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import classes from './SchemeButton.module.css';

export function SchemeButton() {
  const { setColorScheme } = useMantineColorScheme();
  const other = useComputedColorScheme('light') === 'dark' ? 'light' : 'dark';
  return (
    <UnstyledButton className={classes.quiet} onClick={() => setColorScheme(other)}>
      {other === 'light' ? 'Light' : 'Dark'}
    </UnstyledButton>
  );
}
