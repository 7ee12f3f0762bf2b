package ironing.server.catalogue;

import ironing.core.IroningException;
import ironing.core.catalogue.Catalogue;
import ironing.core.catalogue.Hrefs;
import ironing.server.fetch.Fetcher;
import ironing.server.fetch.Fetcher.Answer;
import ironing.server.fetch.Fetcher.May;
import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Where a catalogue lies, and how its files are read there. */
sealed interface Source {
  /** What stands at the end of every address. */
  String STATE = "catalogue.json";

  /** The signature of the state lies beside it. */
  String SIGNATURE = STATE + ".sig";

  /** No signature is longer. */
  int LARGEST_SIGNATURE = 1_024;

  /**
   * A state as it came.
   *
   * @param etag by which it can be asked for next time; empty where there is none
   */
  record State(byte[] bytes, String etag) {}

  /**
   * A file that is on its way. To be closed.
   *
   * @param length as the other side says; empty where it does not
   */
  record Coming(InputStream bytes, Optional<Long> length) implements Closeable {
    @Override
    public void close() throws IOException {
      bytes.close();
    }
  }

  /**
   * The state; empty where it is the one of the tag.
   *
   * @throws NotThere where there is none
   * @throws IOException where the line or the disk fails
   */
  Optional<State> state(String etag) throws IOException;

  /** The text of its signature; empty where there is none. */
  Optional<String> signature() throws IOException;

  /**
   * A file that the catalogue names.
   *
   * @param hosts as the catalogue says
   */
  Coming open(String href, List<String> hosts) throws IOException;

  /** The other side says that it has no such file, or will not give it now. */
  final class NotThere extends IOException {
    private static final long serialVersionUID = 1;
    private final int status;
    private final transient Optional<String> retryAfter;

    NotThere(String what, int status, Optional<String> retryAfter) {
      super(what);
      this.status = status;
      this.retryAfter = retryAfter;
    }

    int status() {
      return status;
    }

    Optional<String> retryAfter() {
      return retryAfter;
    }

    /** Whether it may be another time. */
    boolean isForNow() {
      return status == 429 || status >= 500;
    }
  }

  /** A catalogue that is served. */
  record Served(Fetcher fetcher, URI base, Set<String> origins) implements Source {
    @Override
    public Optional<State> state(String etag) throws IOException {
      Map<String, String> headers = etag.isEmpty() ? Map.of() : Map.of("If-None-Match", etag);
      try (Answer answer = get(base, List.of(), headers)) {
        if (answer.status() == 304) return Optional.empty();
        requireOk(answer);
        byte[] bytes = all(answer.body(), Catalogue.LARGEST);
        return Optional.of(new State(bytes, answer.header("ETag").orElse("")));
      }
    }

    @Override
    public Optional<String> signature() throws IOException {
      try (Answer answer = get(base.resolve(SIGNATURE), List.of(), Map.of())) {
        if (answer.status() == 404 || answer.status() == 410) return Optional.empty();
        requireOk(answer);
        return Optional.of(text(all(answer.body(), LARGEST_SIGNATURE)));
      }
    }

    @Override
    public Coming open(String href, List<String> hosts) throws IOException {
      Answer answer = get(new Hrefs(base, hosts).resolve(href), hosts, Map.of());
      if (answer.status() != 200) {
        answer.close();
        requireOk(answer);
      }
      return new Coming(answer.body(), answer.header("Content-Length").map(Source::number));
    }

    private Answer get(URI uri, List<String> hosts, Map<String, String> headers)
        throws IOException {
      return fetcher.get(uri, new May(new Hrefs(base, hosts), origins), headers);
    }

    private static void requireOk(Answer answer) throws NotThere {
      if (answer.status() == 200) return;
      throw new NotThere(answer.from().toString(), answer.status(), answer.header("Retry-After"));
    }
  }

  /** A catalogue in a folder of this machine. */
  record InFolder(Path folder) implements Source {
    @Override
    public Optional<State> state(String etag) throws IOException {
      byte[] bytes = read(STATE, Catalogue.LARGEST);
      return Optional.of(new State(bytes, ""));
    }

    @Override
    public Optional<String> signature() throws IOException {
      if (!Files.exists(folder.resolve(SIGNATURE))) return Optional.empty();
      return Optional.of(text(read(SIGNATURE, LARGEST_SIGNATURE)));
    }

    private byte[] read(String name, int most) throws IOException {
      try (InputStream in = open(name, List.of()).bytes()) {
        return all(in, most);
      }
    }

    @Override
    public Coming open(String href, List<String> hosts) throws IOException {
      Path file = inside(href);
      return new Coming(Files.newInputStream(file), Optional.of(Files.size(file)));
    }

    /** The file, links followed; refused where it lies outside. */
    Path inside(String href) throws IOException {
      try {
        URI relative = URI.create(href);
        if (relative.isAbsolute() || relative.getPath() == null) throw foreign(href);
        Path real = folder.toRealPath();
        Path file = real.resolve(relative.getPath()).toRealPath();
        if (!file.startsWith(real) || relative.getPath().startsWith("/")) throw foreign(href);
        if (!Files.isRegularFile(file)) throw new NotThere(file.toString(), 404, Optional.empty());
        return file;
      } catch (NoSuchFileException e) {
        throw new NotThere(
            folder.resolve(STATE).resolveSibling(href).toString(), 404, Optional.empty());
      } catch (IllegalArgumentException e) {
        throw foreign(href);
      }
    }

    private IroningException foreign(String href) {
      return IroningException.of(
          "href-foreign",
          "“" + href + "”",
          "It does not lie in the folder of the catalogue, " + folder + ".",
          "Tell whoever keeps the catalogue.");
    }
  }

  private static byte[] all(InputStream in, int most) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    byte[] buffer = new byte[64 * 1024];
    for (int n; (n = in.read(buffer)) >= 0; ) {
      out.write(buffer, 0, n);
      if (out.size() > most) {
        throw IroningException.of(
            "answer-too-long",
            most == Catalogue.LARGEST ? STATE : SIGNATURE,
            "It has more than " + most + " bytes.",
            "Tell whoever keeps the catalogue.");
      }
    }
    return out.toByteArray();
  }

  private static String text(byte[] bytes) {
    return new String(bytes, java.nio.charset.StandardCharsets.ISO_8859_1);
  }

  private static Long number(String text) {
    try {
      return Long.valueOf(text.strip());
    } catch (NumberFormatException e) {
      return null;
    }
  }
}
