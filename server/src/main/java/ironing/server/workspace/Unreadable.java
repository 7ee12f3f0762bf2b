package ironing.server.workspace;

import ironing.server.platform.MayBeAbsent;

/**
 * Something that was written down and cannot be read any more. It costs itself, and nothing else of
 * the workspace.
 *
 * @param key by which it can be dropped
 * @param what it is, in words
 * @param mod whose it is; null for none
 * @param because why it cannot be read
 */
public record Unreadable(String key, String what, @MayBeAbsent Long mod, String because) {}
