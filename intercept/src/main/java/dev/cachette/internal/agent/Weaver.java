package dev.cachette.internal.agent;

import java.lang.instrument.ClassFileTransformer;
import java.security.ProtectionDomain;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.objectweb.asm.ClassReader;
import org.objectweb.asm.ClassVisitor;
import org.objectweb.asm.ClassWriter;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;

/** Puts the hooks into the classes of the JDK, and remembers which methods it found. */
final class Weaver implements ClassFileTransformer {

  private final Set<WeavePoint> woven = ConcurrentHashMap.newKeySet();
  private volatile Throwable failure;

  /** Gives null for every other class, which means: leave it as it is. */
  @Override
  public byte[] transform(
      ClassLoader loader,
      String className,
      Class<?> redefined,
      ProtectionDomain domain,
      byte[] bytes) {
    if (loader != null || className == null || !isTarget(className)) {
      return null;
    }
    try {
      return weave(className, bytes);
    } catch (RuntimeException | LinkageError failed) {
      // The JVM would swallow it; whoever installs us asks for it.
      failure = failed;
      return null;
    }
  }

  /** The points that no method was found for so far. */
  List<WeavePoint> missing() {
    return WeavePoint.ALL.stream().filter(point -> !woven.contains(point)).toList();
  }

  Optional<Throwable> failure() {
    return Optional.ofNullable(failure);
  }

  private static boolean isTarget(String className) {
    return WeavePoint.ALL.stream().anyMatch(point -> point.className().equals(className));
  }

  private byte[] weave(String className, byte[] bytes) {
    ClassReader reader = new ClassReader(bytes);
    ClassWriter writer = new ClassWriter(reader, 0);
    reader.accept(new HookedClass(className, writer), 0);
    return writer.toByteArray();
  }

  private final class HookedClass extends ClassVisitor {

    private final String className;

    HookedClass(String className, ClassWriter next) {
      super(Opcodes.ASM9, next);
      this.className = className;
    }

    @Override
    public MethodVisitor visitMethod(
        int access, String name, String descriptor, String signature, String[] exceptions) {
      MethodVisitor method = super.visitMethod(access, name, descriptor, signature, exceptions);
      boolean hasCode = (access & (Opcodes.ACC_ABSTRACT | Opcodes.ACC_NATIVE)) == 0;
      return WeavePoint.ALL.stream()
          .filter(point -> hasCode && point.isAt(className, name, descriptor))
          .findFirst()
          .map(point -> hooked(point, method))
          .orElse(method);
    }

    private MethodVisitor hooked(WeavePoint point, MethodVisitor method) {
      woven.add(point);
      return new HookedMethod(point, method);
    }
  }

  private static final class HookedMethod extends MethodVisitor {

    private final WeavePoint point;

    HookedMethod(WeavePoint point, MethodVisitor next) {
      super(Opcodes.ASM9, next);
      this.point = point;
    }

    @Override
    public void visitCode() {
      super.visitCode();
      point.prologue().write(mv);
    }

    @Override
    public void visitMaxs(int maxStack, int maxLocals) {
      super.visitMaxs(Math.max(maxStack, Prologues.MAX_STACK), maxLocals);
    }
  }
}
