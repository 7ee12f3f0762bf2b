package ironing.server.downloads;

import ironing.core.IroningException;
import ironing.core.Problem;
import ironing.core.archive.ContentHash;
import ironing.server.catalogue.Catalogues;
import ironing.server.catalogue.Catalogues.Place;
import ironing.server.downloads.DownloadMapper.DownloadRow;
import ironing.server.fetch.Fetcher;
import ironing.server.fetch.Fetcher.Answer;
import ironing.server.fetch.Pace;
import ironing.server.fetch.Patience;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.Consumer;

/**
 * One file on its way: asked for, gone on with where the line broke, checked by its size and digest
 * in the stream. What has come lies in a part of its own, and is never taken for the whole.
 */
final class Download {
  private static final int BUFFER = 128 * 1024;

  private final DownloadRow row;
  private final Path part;
  private final Fetcher fetcher;
  private final Patience patience;
  private final Pace pace;
  private final Consumer<String> keepEtag;
  private String etag;
  private MessageDigest sha = ContentHash.digest();
  private long received;
  private long cameNow;
  private boolean isGoneOnWith;
  private volatile boolean stopped;
  private volatile long shown;

  /** The other side cannot give it now, and asking again is of no use for a while. */
  static final class Rests extends Exception {
    private static final long serialVersionUID = 1;
    private final transient Problem problem;

    Rests(Problem problem) {
      super(problem.sentence());
      this.problem = problem;
    }

    Problem problem() {
      return problem;
    }
  }

  /**
   * @param pace that all of the workspace keep together
   * @param keepEtag writes down what the bytes that come are told to be part of
   */
  Download(
      DownloadRow row,
      Path part,
      Fetcher fetcher,
      Patience patience,
      Pace pace,
      Consumer<String> keepEtag) {
    this.row = row;
    this.part = part;
    this.fetcher = fetcher;
    this.patience = patience;
    this.pace = pace;
    this.keepEtag = keepEtag;
    this.etag = row.etag();
  }

  /** Stops it at its next step; what has come stays. */
  void stop() {
    stopped = true;
  }

  /** How many bytes have come. */
  long received() {
    return shown;
  }

  private void requireWanted() {
    if (stopped) throw new CancellationException();
  }

  /**
   * Fetches it to its end.
   *
   * @throws Rests where nothing has come of several tries
   * @throws IroningException where it is not what was announced, or may not be asked for
   * @throws CancellationException when it was stopped
   */
  void run(Catalogues catalogues) throws Rests, IOException {
    Files.createDirectories(part.getParent());
    try (FileChannel out =
        FileChannel.open(
            part, StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.READ)) {
      begin(out);
      for (int tries = 1; received < row.sizeBytes() || tries == 1; tries++) {
        cameNow = 0;
        Optional<String> retryAfter = Optional.empty();
        Problem failed;
        try {
          if (received < row.sizeBytes() || row.sizeBytes() == 0) once(catalogues, out);
          if (isWhole(out)) break;
          tries = 0;
          continue;
        } catch (NotNow e) {
          failed = e.problem;
          retryAfter = e.retryAfter;
        } catch (FileSystemException e) {
          throw e;
        } catch (IOException e) {
          failed = unreachable(Fetcher.said(e));
        }
        if (cameNow > 0) tries = 1;
        Optional<Duration> wait = patience.next(tries, retryAfter);
        if (wait.isEmpty()) throw new Rests(failed);
        Patience.await(wait.get(), this::requireWanted);
      }
      out.force(true);
    }
  }

  /** What has come before counts, if it is known what it is part of. */
  private void begin(FileChannel out) throws IOException {
    long there = out.size();
    if (there == 0 || etag == null || there > row.sizeBytes()) {
      startOver(out);
      return;
    }
    isGoneOnWith = true;
    ByteBuffer buffer = ByteBuffer.allocate(BUFFER);
    out.position(0);
    while (out.read(buffer) >= 0) {
      requireWanted();
      sha.update(buffer.flip());
      buffer.clear();
    }
    received = there;
    shown = there;
  }

  private void startOver(FileChannel out) throws IOException {
    out.truncate(0);
    sha = ContentHash.digest();
    received = 0;
    shown = 0;
    isGoneOnWith = false;
  }

  /**
   * Whether all bytes are here and are the announced ones.
   *
   * @return false where they are not, but some were of an earlier run: then it begins anew
   */
  private boolean isWhole(FileChannel out) throws IOException {
    if (received < row.sizeBytes())
      throw new IOException("it ended after " + received + " of " + row.sizeBytes() + " bytes");
    String hex = HexFormat.of().formatHex(sha.digest());
    if (hex.equals(row.sha256())) return true;
    boolean again = isGoneOnWith;
    startOver(out);
    if (again) return false;
    throw IroningException.of(
        "digest-other",
        row.name(),
        "Its SHA-256 is " + hex + ", and the catalogue says " + row.sha256() + ".",
        "What came was thrown away. Look at the catalogue again; if it remains so, tell its keeper.");
  }

  private void once(Catalogues catalogues, FileChannel out) throws IOException {
    if (row.catalogueId() == null) throw catalogueGone();
    Place place = catalogues.place(row.workspaceId(), row.catalogueId(), row.href());
    if (place.file().isPresent()) {
      startOver(out);
      try (InputStream in = Files.newInputStream(place.file().get())) {
        write(in, out);
      }
      return;
    }
    URI uri = place.uri().orElseThrow();
    boolean goesOn = received > 0 && etag != null;
    Map<String, String> headers =
        goesOn ? Map.of("Range", "bytes=" + received + "-", "If-Range", etag) : Map.of();
    try (Answer answer = fetcher.get(uri, place.may(), headers)) {
      switch (answer.status()) {
        case 206 -> {
          String range = answer.header("Content-Range").orElse("");
          if (!goesOn || !range.startsWith("bytes " + received + "-")) {
            startOver(out);
            throw new IOException("it sent another part than was asked for");
          }
        }
        case 200 -> {
          startOver(out);
          // only a strong tag tells that bytes are the same
          etag = answer.header("ETag").filter(t -> !t.startsWith("W/")).orElse(null);
          keepEtag.accept(etag);
        }
        case 416 -> {
          startOver(out);
          throw new IOException("it has become another file");
        }
        default -> throw refused(answer);
      }
      write(answer.body(), out);
    }
  }

  private void write(InputStream in, FileChannel out) throws IOException {
    byte[] buffer = new byte[BUFFER];
    out.position(received);
    for (int n; (n = in.read(buffer, 0, pace.piece(BUFFER))) >= 0; ) {
      requireWanted();
      if (received + n > row.sizeBytes()) {
        startOver(out);
        throw IroningException.of(
            "size-other",
            row.name(),
            "More than the " + row.sizeBytes() + " bytes came that the catalogue says.",
            "What came was thrown away. Look at the catalogue again; if it remains so, tell its"
                + " keeper.");
      }
      ByteBuffer piece = ByteBuffer.wrap(buffer, 0, n);
      while (piece.hasRemaining()) out.write(piece);
      sha.update(buffer, 0, n);
      received += n;
      cameNow += n;
      shown = received;
      Duration wait = pace.take(n);
      if (!wait.isZero()) Patience.await(wait, this::requireWanted);
    }
  }

  /** An answer that may be another in a while. */
  private static final class NotNow extends IOException {
    private static final long serialVersionUID = 1;
    private final transient Problem problem;
    private final transient Optional<String> retryAfter;

    NotNow(Problem problem, Optional<String> retryAfter) {
      super(problem.sentence());
      this.problem = problem;
      this.retryAfter = retryAfter;
    }
  }

  private IOException refused(Answer answer) {
    int status = answer.status();
    if (status == 429 || status >= 500) {
      String said =
          status == 429
              ? "It asks not to be asked for now."
              : "It answers with the status " + status + ".";
      return new NotNow(unreachable(said), answer.header("Retry-After"));
    }
    throw IroningException.of(
        "download-refused",
        answer.from().toString(),
        status == 404 || status == 410
            ? "There is no such file any more."
            : status == 401 || status == 403
                ? "It may not be read by everybody."
                : "It answers with the status " + status + ".",
        "Look at the catalogue again, or fetch the file yourself and bring it in.");
  }

  private Problem unreachable(String said) {
    return new Problem(
        "download-rests", row.name(), said, "What has come stays. Take it up again later.");
  }

  private IroningException catalogueGone() {
    return IroningException.of(
        "download-refused",
        row.name(),
        "The catalogue that it was chosen from is no longer known here.",
        "Add the catalogue again, or fetch the file yourself and bring it in.");
  }
}
