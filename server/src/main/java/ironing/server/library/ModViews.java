package ironing.server.library;

import java.util.List;
import java.util.Objects;

/** What {@link ModController} gives and takes, and how it is made of what the core says. */
final class ModViews {
  private ModViews() {}

  record TagsRequest(List<String> tags) {
    TagsRequest {
      Objects.requireNonNull(tags, "tags");
    }
  }

  record NotesRequest(String notes) {
    NotesRequest {
      Objects.requireNonNull(notes, "notes");
    }
  }

  /**
   * @param sha256 of the file as the user saw it
   */
  record EditRequest(String path, String text, String sha256) {
    EditRequest {
      Objects.requireNonNull(path, "path");
      Objects.requireNonNull(text, "text");
      Objects.requireNonNull(sha256, "sha256");
    }
  }

  record PathRequest(String path) {
    PathRequest {
      Objects.requireNonNull(path, "path");
    }
  }

  /**
   * @param paths files, and folders with {@code /} at the end
   * @param hold true to hold them back, false to let them in again
   */
  record HoldRequest(List<String> paths, boolean hold) {
    HoldRequest {
      Objects.requireNonNull(paths, "paths");
    }
  }
}
