/** Where the lab finds the control page that ships with Zafra: a name that no host can have (RFC 2606), which it maps. */
export const CONTROL_HOST = 'control.zafra.invalid';
export const CONTROL_URL = `http://${CONTROL_HOST}/control/index.html`;
