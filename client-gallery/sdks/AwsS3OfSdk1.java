// name: AWS SDK 1, S3
// needs: com.amazonaws:aws-java-sdk-s3:1.12.788
import com.amazonaws.auth.AWSStaticCredentialsProvider;
import com.amazonaws.auth.BasicAWSCredentials;
import com.amazonaws.client.builder.AwsClientBuilder.EndpointConfiguration;
import com.amazonaws.services.s3.AmazonS3ClientBuilder;

public final class AwsS3OfSdk1 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return AmazonS3ClientBuilder.standard()
        .withEndpointConfiguration(new EndpointConfiguration(origin, "eu-west-1"))
        .withCredentials(
            new AWSStaticCredentialsProvider(new BasicAWSCredentials("made-up", "made-up")))
        .withPathStyleAccessEnabled(true)
        .build()
        .getObjectAsString("charts", "tides.json");
  }
}
