/** The lead signs the record. */
import type { InputProps, QuestionOf } from '../ledger/contract';
import { Signing } from '../ledger/Signing';

export function SignOff(props: InputProps<QuestionOf<'sign_off'>>) {
  const { engine } = props.bench;
  return (
    <Signing
      {...props}
      draft={`${engine.serial}.sign_off`}
      may={engine.may_sign}
      instead="The lead signs the record. Hand it over."
      button="Sign the record"
      entryOf={(remark) => ({ kind: 'sign_off', remark })}
    />
  );
}
