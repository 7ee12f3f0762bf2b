package ironing.server.tools;

import java.util.List;
import java.util.Map;

/**
 * A program of the user's that works on the deployed game.
 *
 * @param command the program, then its arguments, each for itself; with placeholders
 * @param folder in which it starts; with placeholders
 * @param environment beside what the server itself has; values with placeholders
 * @param reads patterns on game paths: what it makes its output of
 * @param writes patterns on game paths: what it wrote there is its output
 */
public record Tool(
    long id,
    String name,
    List<String> command,
    String folder,
    Map<String, String> environment,
    List<String> reads,
    List<String> writes) {}
