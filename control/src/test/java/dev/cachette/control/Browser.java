package dev.cachette.control;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.function.Supplier;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.support.ui.WebDriverWait;

/** A real browser without a window; what a person does with a page. */
final class Browser implements AutoCloseable {

  private static final Path CHROMIUM = Path.of("/usr/bin/chromium");
  private static final Path DRIVER = Path.of("/usr/bin/chromedriver");
  private static final Duration PATIENCE = Duration.ofSeconds(20);

  private final ChromeDriver driver;

  Browser() {
    ChromeOptions options = new ChromeOptions();
    options.setBinary(CHROMIUM.toFile());
    options.addArguments(
        "--headless=new",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync");
    ChromeDriverService service =
        new ChromeDriverService.Builder()
            .usingDriverExecutable(new File(DRIVER.toString()))
            .build();
    driver = new ChromeDriver(service, options);
    driver.manage().window().setSize(new Dimension(1280, 800));
  }

  static boolean isHere() {
    return Files.isExecutable(CHROMIUM) && Files.isExecutable(DRIVER);
  }

  ChromeDriver driver() {
    return driver;
  }

  void open(String url) {
    // The same page with another address would not be loaded.
    driver.get("about:blank");
    driver.get(url);
  }

  String address() {
    return driver.getCurrentUrl();
  }

  /** Waits for something that is not null, and not false. */
  <T> T await(String what, Supplier<T> condition) {
    return new WebDriverWait(driver, PATIENCE, Duration.ofMillis(50))
        .withMessage(what)
        .ignoring(StaleElementReferenceException.class)
        .ignoring(org.openqa.selenium.NoSuchElementException.class)
        .until(x -> condition.get());
  }

  WebElement find(String css) {
    return await(css, () -> driver.findElement(By.cssSelector(css)));
  }

  List<WebElement> all(String css) {
    return driver.findElements(By.cssSelector(css));
  }

  /** Returns what is to be read there. */
  String text(String css) {
    return await(css, () -> driver.findElement(By.cssSelector(css)).getText());
  }

  void awaitText(String css, String wanted) {
    await(
        "\"" + wanted + "\" in " + css,
        () -> driver.findElement(By.cssSelector(css)).getText().contains(wanted));
  }

  void click(String css) {
    await(
        css,
        () -> {
          driver.findElement(By.cssSelector(css)).click();
          return true;
        });
  }

  /** Clicks a button by its words. */
  void press(String words) {
    await(
        words,
        () -> {
          driver.findElement(By.xpath("//button[normalize-space()='" + words + "']")).click();
          return true;
        });
  }

  /** Replaces the content of a field. */
  void type(String css, String text) {
    WebElement field = find(css);
    field.sendKeys(Keys.chord(Keys.CONTROL, "a"), Keys.DELETE);
    field.sendKeys(text);
  }

  void keys(CharSequence... keys) {
    driver.switchTo().activeElement().sendKeys(keys);
  }

  Object run(String script, Object... arguments) {
    return driver.executeScript(script, arguments);
  }

  void picture(Path file) throws IOException {
    Files.write(file, driver.getScreenshotAs(OutputType.BYTES));
  }

  @Override
  public void close() {
    driver.quit();
  }
}
