export { Found, useFindingText } from './found';
export { PinButton, usePin } from './pin';
export { useSetAsides } from './use-set-asides';
export { useBroken, WouldBreak } from './would-break';
