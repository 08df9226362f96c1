/** Where the lab finds the control page that ships: a name that no host can have (RFC 2606), which the lab maps. */
export const CONTROL_HOST = 'control.zafra.invalid';
export const CONTROL_URL = `http://${CONTROL_HOST}/control/index.html`;
