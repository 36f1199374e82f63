// name: AWS SDK 2, S3 async
// needs: software.amazon.awssdk:s3:2.57.8
import java.net.URI;
import software.amazon.awssdk.auth.credentials.AwsBasicCredentials;
import software.amazon.awssdk.auth.credentials.StaticCredentialsProvider;
import software.amazon.awssdk.core.async.AsyncResponseTransformer;
import software.amazon.awssdk.regions.Region;
import software.amazon.awssdk.services.s3.S3AsyncClient;

public final class AwsS3Async implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (S3AsyncClient client =
        S3AsyncClient.builder()
            .endpointOverride(URI.create(origin))
            .region(Region.EU_WEST_1)
            .credentialsProvider(
                StaticCredentialsProvider.create(AwsBasicCredentials.create("made-up", "made-up")))
            .forcePathStyle(true)
            .build()) {
      return client
          .getObject(
              request -> request.bucket("charts").key("tides.json"),
              AsyncResponseTransformer.toBytes())
          .get()
          .asUtf8String();
    }
  }
}
