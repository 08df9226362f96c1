declare module 'har-schema';
