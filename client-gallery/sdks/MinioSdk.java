// name: MinIO
// needs: io.minio:minio:8.5.17
import io.minio.GetObjectArgs;
import io.minio.MinioClient;

public final class MinioSdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new String(
        MinioClient.builder()
            .endpoint(origin)
            .region("eu-west-1")
            .credentials("made-up", "made-up")
            .build()
            .getObject(GetObjectArgs.builder().bucket("charts").object("tides.json").build())
            .readAllBytes());
  }
}
