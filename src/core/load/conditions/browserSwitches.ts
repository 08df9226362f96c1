/** Switches of the measuring browser. */

/** Chromium's own traffic and its changes of addresses; everything about how pages load stays as it ships. */
const FEATURES_OFF = [
	'HttpsUpgrades',
	'HttpsFirstBalancedModeAutoEnable',
	'OptimizationHints',
	'MediaRouter',
	'DialMediaRouteProvider',
	'Translate',
	'CertificateTransparencyComponentUpdater',
	'InterestFeedContentSuggestions',
	// Frames of other sites share the page's renderer, as they mostly do on phones, and so its slowdown and its log.
	'IsolateOrigins',
	'site-per-process'
];

/**
 * What the browser is started with for measuring: clean, quiet, and with nothing that changes how pages load. Part of
 * what loads are compared under: a trial freezes it with its conditions.
 */
export const BROWSER_SWITCHES: readonly string[] = [
	'--headless',
	'--disable-gpu',
	'--disable-quic',
	'--disable-background-networking',
	'--disable-component-update',
	'--disable-sync',
	'--disable-default-apps',
	'--disable-extensions',
	'--disable-client-side-phishing-detection',
	'--disable-domain-reliability',
	'--disable-breakpad',
	'--disable-dev-shm-usage',
	'--disable-field-trial-config',
	'--disable-hang-monitor',
	'--disable-ipc-flooding-protection',
	'--disable-popup-blocking',
	'--disable-back-forward-cache',
	'--disable-background-timer-throttling',
	'--disable-backgrounding-occluded-windows',
	'--disable-renderer-backgrounding',
	'--disable-search-engine-choice-screen',
	'--disable-site-isolation-trials',
	'--force-color-profile=srgb',
	'--hide-scrollbars',
	'--metrics-recording-only',
	'--mute-audio',
	'--no-default-browser-check',
	'--no-first-run',
	'--no-service-autorun',
	'--password-store=basic',
	'--use-mock-keychain',
	// No way around the shaped line: without a proxy that carries UDP there is no WebRTC media.
	'--force-webrtc-ip-handling-policy=disable_non_proxied_udp',
	'--webrtc-ip-handling-policy=disable_non_proxied_udp',
	`--disable-features=${FEATURES_OFF.join(',')}`
];
