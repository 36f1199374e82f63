// SPDX-License-Identifier: Apache-2.0
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
public final class Browser implements AutoCloseable {

  private static final Path CHROMIUM = Path.of("/usr/bin/chromium");
  private static final Path DRIVER = Path.of("/usr/bin/chromedriver");
  private static final Duration PATIENCE = Duration.ofSeconds(20);

  private final ChromeDriver driver;

  /** Starts it. */
  public Browser() {
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

  public static boolean isHere() {
    return Files.isExecutable(CHROMIUM) && Files.isExecutable(DRIVER);
  }

  public ChromeDriver driver() {
    return driver;
  }

  /** Loads a page, also if only the part of its address after # is new. */
  public void open(String url) {
    // The same page with another address would not be loaded.
    driver.get("about:blank");
    driver.get(url);
  }

  public String address() {
    return driver.getCurrentUrl();
  }

  /** Waits for something that is not null, and not false. */
  public <T> T await(String what, Supplier<T> condition) {
    return new WebDriverWait(driver, PATIENCE, Duration.ofMillis(50))
        .withMessage(what)
        .ignoring(StaleElementReferenceException.class)
        .ignoring(org.openqa.selenium.NoSuchElementException.class)
        .until(x -> condition.get());
  }

  public WebElement find(String css) {
    return await(css, () -> driver.findElement(By.cssSelector(css)));
  }

  public List<WebElement> all(String css) {
    return driver.findElements(By.cssSelector(css));
  }

  /** Returns what is to be read there. */
  public String text(String css) {
    return await(css, () -> driver.findElement(By.cssSelector(css)).getText());
  }

  /** Waits until a text is to be read there. */
  public void awaitText(String css, String wanted) {
    await(
        "\"" + wanted + "\" in " + css,
        () -> driver.findElement(By.cssSelector(css)).getText().contains(wanted));
  }

  /** Clicks it, as soon as it is there. */
  public void click(String css) {
    await(
        css,
        () -> {
          driver.findElement(By.cssSelector(css)).click();
          return true;
        });
  }

  /** Clicks a button by its words. */
  public void press(String words) {
    await(
        words,
        () -> {
          driver.findElement(By.xpath("//button[normalize-space()='" + words + "']")).click();
          return true;
        });
  }

  /** Replaces the content of a field. */
  public void type(String css, String text) {
    WebElement field = find(css);
    field.sendKeys(Keys.chord(Keys.CONTROL, "a"), Keys.DELETE);
    field.sendKeys(text);
  }

  public void keys(CharSequence... keys) {
    driver.switchTo().activeElement().sendKeys(keys);
  }

  public Object run(String script, Object... arguments) {
    return driver.executeScript(script, arguments);
  }

  public void picture(Path file) throws IOException {
    Files.write(file, driver.getScreenshotAs(OutputType.BYTES));
  }

  @Override
  public void close() {
    driver.quit();
  }
}
