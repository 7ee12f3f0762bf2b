package ironing.standins.game;

/** What stops the game. The code and the place go into the run log. */
final class GameFault extends RuntimeException {
  private static final long serialVersionUID = 1;
  final String code;
  final String path;
  final String plugin;
  final String record;

  GameFault(String code, String text, String path, String plugin, String record) {
    super(text);
    this.code = code;
    this.path = path;
    this.plugin = plugin;
    this.record = record;
  }
}
