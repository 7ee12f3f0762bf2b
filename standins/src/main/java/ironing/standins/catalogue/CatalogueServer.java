package ironing.standins.catalogue;

import com.sun.net.httpserver.Headers;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Serves a folder on 127.0.0.1 with entity tags, conditional requests and ranges (RFC 9110,
 * sections 13 and 14). {@code PUT /-/fault/PATH?kind=…} makes a path go wrong, {@code DELETE} of
 * the same makes it well again.
 *
 * <p>Usage: {@code CatalogueServer FOLDER PORT}; with port 0 it takes a free one. Prints its
 * address.
 */
public final class CatalogueServer implements AutoCloseable {
  private static final String CONTROL = "/-/fault";
  private static final Pattern RANGE = Pattern.compile("bytes=(\\d+)-(\\d*)");
  private static final int PIECE = 1_024;

  private final Path folder;
  private final HttpServer server;
  private final ExecutorService workers = Executors.newCachedThreadPool();
  private final Map<String, Fault> faults = new ConcurrentHashMap<>();
  private final Map<String, Integer> happened = new ConcurrentHashMap<>();
  private final List<String> asked = new CopyOnWriteArrayList<>();

  public CatalogueServer(Path folder, int port) throws IOException {
    this.folder = folder.toRealPath();
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
    server.setExecutor(workers);
    server.createContext("/", this::answer);
    server.start();
  }

  public static void main(String[] args) throws IOException {
    CatalogueServer s = new CatalogueServer(Path.of(args[0]), Integer.parseInt(args[1]));
    System.out.println(s.url());
  }

  public String url() {
    return "http://127.0.0.1:" + server.getAddress().getPort();
  }

  /** Makes a path go wrong from now on, such as {@code /files/a.zip}. */
  public void fail(String path, Fault fault) {
    happened.remove(path);
    faults.put(path, fault);
  }

  /** All is well with a path again. */
  public void mend(String path) {
    faults.remove(path);
  }

  /** What was asked for until now: method, path and the range. */
  public List<String> asked() {
    return List.copyOf(asked);
  }

  public void forgetAsked() {
    asked.clear();
  }

  @Override
  public void close() {
    server.stop(0);
    workers.shutdownNow();
  }

  private void answer(HttpExchange x) throws IOException {
    try (x) {
      String path = x.getRequestURI().getPath();
      if (path.startsWith(CONTROL + "/")) {
        control(x, path.substring(CONTROL.length()));
        return;
      }
      String range = x.getRequestHeaders().getFirst("Range");
      asked.add(x.getRequestMethod() + " " + path + (range == null ? "" : " " + range));
      Optional<Path> file = file(path);
      Optional<Fault> fault = fault(path);
      if (fault.isPresent() && isInstead(x, fault.get())) return;
      if (file.isEmpty()) {
        status(x, 404);
        return;
      }
      serve(x, file.get(), fault);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private void control(HttpExchange x, String path) throws IOException {
    if (x.getRequestMethod().equals("DELETE")) mend(path);
    else fail(path, Fault.read(x.getRequestURI().getRawQuery()));
    status(x, 204);
  }

  private Optional<Fault> fault(String path) {
    Fault f = faults.get(path);
    if (f == null) return Optional.empty();
    int times = happened.merge(path, 1, Integer::sum);
    return f.times() == 0 || times <= f.times() ? Optional.of(f) : Optional.empty();
  }

  private Optional<Path> file(String path) throws IOException {
    try {
      Path file = folder.resolve(path.substring(1)).normalize();
      if (!file.startsWith(folder) || !Files.isRegularFile(file)) return Optional.empty();
      return Optional.of(file);
    } catch (InvalidPathException e) {
      return Optional.empty();
    }
  }

  /** Faults that are the whole answer. */
  private static boolean isInstead(HttpExchange x, Fault f) throws IOException {
    switch (f.kind()) {
      case STATUS -> {
        if (!f.text().isEmpty()) x.getResponseHeaders().set("Retry-After", f.text());
        status(x, (int) f.amount());
        return true;
      }
      case REDIRECT -> {
        x.getResponseHeaders().set("Location", f.text());
        status(x, (int) f.amount());
        return true;
      }
      default -> {
        return false;
      }
    }
  }

  private static void status(HttpExchange x, int status) throws IOException {
    x.sendResponseHeaders(status, -1);
  }

  private static String etag(Path file) throws IOException {
    return "\""
        + Long.toHexString(Files.size(file))
        + "-"
        + Long.toHexString(Files.getLastModifiedTime(file).toMillis())
        + "\"";
  }

  private void serve(HttpExchange x, Path file, Optional<Fault> fault)
      throws IOException, InterruptedException {
    String tag = etag(file);
    Headers in = x.getRequestHeaders(), out = x.getResponseHeaders();
    boolean plain = is(fault, Fault.Kind.PLAIN);
    out.set("Content-Type", "application/octet-stream");
    if (!plain) {
      out.set("ETag", tag);
      out.set("Accept-Ranges", "bytes");
      if (tag.equals(in.getFirst("If-None-Match"))) {
        status(x, 304);
        return;
      }
    }
    if (is(fault, Fault.Kind.ENCODED)) out.set("Content-Encoding", fault.get().text());
    long size = Files.size(file), from = 0, to = size;
    int status = 200;
    Matcher m = RANGE.matcher(String.valueOf(in.getFirst("Range")));
    String condition = in.getFirst("If-Range");
    if (!plain && m.matches() && (condition == null || condition.equals(tag))) {
      from = Long.parseLong(m.group(1));
      to = m.group(2).isEmpty() ? size : Math.min(size, Long.parseLong(m.group(2)) + 1);
      if (from >= size) {
        out.set("Content-Range", "bytes */" + size);
        status(x, 416);
        return;
      }
      out.set("Content-Range", "bytes " + from + "-" + (to - 1) + "/" + size);
      status = 206;
    }
    long longer = is(fault, Fault.Kind.LONGER) ? fault.get().amount() : 0;
    boolean endless = is(fault, Fault.Kind.ENDLESS);
    // a length of 0 is, for this server, one that is not said
    x.sendResponseHeaders(status, endless || to == from ? 0 : to - from + longer);
    if (x.getRequestMethod().equals("HEAD")) return;
    bytes(x.getResponseBody(), file, from, to, fault);
  }

  private static boolean is(Optional<Fault> fault, Fault.Kind kind) {
    return fault.filter(f -> f.kind() == kind).isPresent();
  }

  private static void bytes(OutputStream out, Path file, long from, long to, Optional<Fault> fault)
      throws IOException, InterruptedException {
    long most = is(fault, Fault.Kind.CUT) ? Math.min(to, from + fault.get().amount()) : to;
    try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
      in.seek(from);
      byte[] piece = new byte[is(fault, Fault.Kind.SLOW) ? PIECE : 64 * PIECE];
      for (long at = from; at < most; ) {
        int n = in.read(piece, 0, (int) Math.min(piece.length, most - at));
        if (n < 0) break;
        if (is(fault, Fault.Kind.ALTERED)) {
          long place = fault.get().amount() - at;
          if (place >= 0 && place < n) piece[(int) place] ^= 1;
        }
        if (is(fault, Fault.Kind.SLOW)) Thread.sleep(fault.get().amount());
        out.write(piece, 0, n);
        out.flush();
        at += n;
      }
    }
    if (is(fault, Fault.Kind.ENDLESS))
      for (long i = 0; i < fault.get().amount(); i += PIECE) out.write(new byte[PIECE]);
    // closed before its length, the connection breaks
    if (most == to) out.close();
  }
}
