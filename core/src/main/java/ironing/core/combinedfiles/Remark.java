package ironing.core.combinedfiles;

/**
 * Something to know about a combination.
 *
 * @param code for programs
 * @param of the id of the contender that it is about; empty for the file
 */
public record Remark(String code, String of, String text) {}
