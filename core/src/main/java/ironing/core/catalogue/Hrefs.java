package ironing.core.catalogue;

import ironing.core.IroningException;
import java.net.URI;
import java.net.URISyntaxException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Where the files of a catalogue may lie: at its own origin, or at one of those that it names.
 * Nothing else is ever asked, also where an answer leads on.
 */
public final class Hrefs {
  private final URI base;
  private final List<String> origins = new ArrayList<>();

  /**
   * @param base the address of catalogue.json
   * @param hosts as the catalogue says
   */
  public Hrefs(URI base, List<String> hosts) {
    this.base = base;
    origins.add(origin(base));
    for (String host : hosts) {
      try {
        URI uri = new URI(host.strip());
        if (isHttp(uri)) origins.add(origin(uri));
      } catch (URISyntaxException e) {
        // an origin that is none allows nothing
      }
    }
  }

  /**
   * The address of a file that the catalogue names.
   *
   * @throws IroningException with code {@code href-invalid} where it is no address, and {@code
   *     href-foreign} where the catalogue may not lead there
   */
  public URI resolve(String href) {
    URI uri;
    try {
      uri = base.resolve(new URI(href));
    } catch (URISyntaxException | IllegalArgumentException e) {
      throw IroningException.of(
          "href-invalid",
          "“" + href + "”",
          "The catalogue says that a file lies there, but this is no address.",
          "Tell whoever keeps the catalogue.");
    }
    return check(uri, base);
  }

  /**
   * An address that an answer leads on to.
   *
   * @param from what was asked
   */
  public URI redirect(URI from, String location) {
    URI uri;
    try {
      uri = from.resolve(new URI(location));
    } catch (URISyntaxException | IllegalArgumentException e) {
      throw IroningException.of(
          "href-invalid",
          "“" + location + "”",
          "The answer of " + origin(from) + " leads on to what is no address.",
          "Tell whoever keeps the catalogue.");
    }
    return check(uri, from);
  }

  private URI check(URI uri, URI from) {
    if (!isHttp(uri) || !origins.contains(origin(uri)) || uri.getUserInfo() != null) {
      throw IroningException.of(
          "href-foreign",
          "“" + uri + "”",
          "It lies neither with the catalogue nor at one of the places that the catalogue names.",
          "Tell whoever keeps the catalogue; until then, fetch the file yourself and bring it in.");
    }
    if ("https".equalsIgnoreCase(from.getScheme()) && !"https".equalsIgnoreCase(uri.getScheme())) {
      throw IroningException.of(
          "href-foreign",
          "“" + uri + "”",
          "It leads from https to http, where anybody on the way can change what comes.",
          "Tell whoever keeps the catalogue; until then, fetch the file yourself and bring it in.");
    }
    return uri;
  }

  private static boolean isHttp(URI uri) {
    String scheme = uri.getScheme();
    return uri.getHost() != null
        && ("http".equalsIgnoreCase(scheme) || "https".equalsIgnoreCase(scheme));
  }

  /** Scheme, host and port of an address (RFC 6454), the port always said. */
  public static String origin(URI uri) {
    String scheme = String.valueOf(uri.getScheme()).toLowerCase(Locale.ROOT);
    int port = uri.getPort() >= 0 ? uri.getPort() : scheme.equals("https") ? 443 : 80;
    return scheme + "://" + String.valueOf(uri.getHost()).toLowerCase(Locale.ROOT) + ":" + port;
  }
}
