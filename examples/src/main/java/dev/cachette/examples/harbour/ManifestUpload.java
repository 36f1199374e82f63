package dev.cachette.examples.harbour;

/** Uploads the list of a vessel's cargo, as multipart. */
public final class ManifestUpload {

  private static final String BODY =
      """
      --marrow\r
      Content-Disposition: form-data; name="vessel"\r
      \r
      %s\r
      --marrow\r
      Content-Disposition: form-data; name="manifest"; filename="cargo.csv"\r
      Content-Type: text/csv\r
      \r
      %s\r
      --marrow--\r
      """;

  private final Http http = new Http();

  /**
   * Uploads a list.
   *
   * @throws HarbourException if it is not accepted
   */
  public void upload(String vessel, String csv) {
    http.post(
        "https://customs.example/v1/manifests",
        "multipart/form-data; boundary=marrow",
        BODY.formatted(vessel, csv),
        201);
  }
}
