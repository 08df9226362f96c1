/** Runs in the page itself, of a visitor: W3C WebDriver, section 4, an ordinary browser says false here. */
Object.defineProperty(Navigator.prototype, 'webdriver', { get: () => false, configurable: true });
