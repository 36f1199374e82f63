// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import java.io.IOException;
import okhttp3.MediaType;
import okhttp3.MultipartBody;
import okhttp3.OkHttpClient;
import okhttp3.Request;
import okhttp3.RequestBody;
import okhttp3.Response;

/** Uploads the cargo list of a vessel, as multipart, with OkHttp. */
public final class ManifestUpload {

  private static final String MANIFESTS = "https://customs.example/v1/manifests";
  private static final MediaType CSV = MediaType.get("text/csv");

  private final OkHttpClient client = new OkHttpClient();

  /**
   * Uploads a list.
   *
   * @throws HarbourException if it is rejected
   */
  public void upload(String vessel, String csv) {
    RequestBody body =
        new MultipartBody.Builder()
            .setType(MultipartBody.FORM)
            .addFormDataPart("vessel", vessel)
            .addFormDataPart("manifest", "cargo.csv", RequestBody.create(csv, CSV))
            .build();
    Request request = new Request.Builder().url(MANIFESTS).post(body).build();
    try (Response response = client.newCall(request).execute()) {
      if (response.code() != 201) {
        throw new HarbourException("the customs answered " + response.code());
      }
    } catch (IOException failed) {
      throw new HarbourException("the customs cannot be reached", failed);
    }
  }
}
