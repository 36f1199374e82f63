// name: AWS SDK 2, S3
// needs: software.amazon.awssdk:s3:2.57.8
import java.net.URI;
import java.util.List;
import software.amazon.awssdk.auth.credentials.AwsBasicCredentials;
import software.amazon.awssdk.auth.credentials.StaticCredentialsProvider;
import software.amazon.awssdk.regions.Region;
import software.amazon.awssdk.services.s3.S3Client;

public final class AwsS3 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (S3Client client =
        S3Client.builder()
            .endpointOverride(URI.create(origin))
            .region(Region.EU_WEST_1)
            .credentialsProvider(
                StaticCredentialsProvider.create(AwsBasicCredentials.create("made-up", "made-up")))
            .forcePathStyle(true)
            .build()) {
      return client
          .getObjectAsBytes(request -> request.bucket("charts").key("tides.json"))
          .asUtf8String();
    }
  }
}
