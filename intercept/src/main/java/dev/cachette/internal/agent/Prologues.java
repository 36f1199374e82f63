package dev.cachette.internal.agent;

import org.objectweb.asm.Label;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;

/** The instructions that ask {@link HookHolder}'s class, one kind a hook. */
final class Prologues {

  /** What the deepest of these prologues needs of the operand stack. */
  static final int MAX_STACK = 3;

  private static final String HOOK = "java/net/CachetteHook";

  private Prologues() {}

  static void write(WeavePoint.Hook hook, MethodVisitor method) {
    switch (hook) {
      case CONNECT -> connect(method);
      case RESOLVE -> resolve(method);
      case TRUST -> trust(method);
      default -> throw new IllegalArgumentException("no prologue for " + hook);
    }
  }

  /** {@code remote = CachetteHook.connect(this, remote);}. */
  private static void connect(MethodVisitor method) {
    method.visitVarInsn(Opcodes.ALOAD, 0);
    method.visitVarInsn(Opcodes.ALOAD, 1);
    ask(method, "connect", "(Ljava/lang/Object;Ljava/net/SocketAddress;)Ljava/net/SocketAddress;");
    method.visitVarInsn(Opcodes.ASTORE, 1);
  }

  /** {@code var found = CachetteHook.resolve(host); if (found != null) return found;}. */
  private static void resolve(MethodVisitor method) {
    Label unknown = new Label();
    method.visitVarInsn(Opcodes.ALOAD, 0);
    ask(method, "resolve", "(Ljava/lang/String;)[Ljava/net/InetAddress;");
    method.visitInsn(Opcodes.DUP);
    method.visitJumpInsn(Opcodes.IFNULL, unknown);
    method.visitInsn(Opcodes.ARETURN);
    method.visitLabel(unknown);
    method.visitFrame(Opcodes.F_SAME1, 0, null, 1, new Object[] {"[Ljava/net/InetAddress;"});
    method.visitInsn(Opcodes.POP);
  }

  /** {@code if (CachetteHook.trusts(chain, connection, ofClient)) return;}. */
  private static void trust(MethodVisitor method) {
    Label unknown = new Label();
    method.visitVarInsn(Opcodes.ALOAD, 1);
    method.visitVarInsn(Opcodes.ALOAD, 3);
    method.visitVarInsn(Opcodes.ILOAD, 4);
    ask(method, "trusts", "([Ljava/security/cert/X509Certificate;Ljava/lang/Object;Z)Z");
    method.visitJumpInsn(Opcodes.IFEQ, unknown);
    method.visitInsn(Opcodes.RETURN);
    method.visitLabel(unknown);
    method.visitFrame(Opcodes.F_SAME, 0, null, 0, null);
    // Keeps this frame apart from one that the method itself may begin with.
    method.visitInsn(Opcodes.NOP);
  }

  private static void ask(MethodVisitor method, String name, String descriptor) {
    method.visitMethodInsn(Opcodes.INVOKESTATIC, HOOK, name, descriptor, false);
  }
}
