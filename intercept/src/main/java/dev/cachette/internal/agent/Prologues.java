package dev.cachette.internal.agent;

import org.objectweb.asm.Label;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;
import org.objectweb.asm.Type;

/** The bytecode that calls {@link HookHolder}'s class, one kind per hook. */
final class Prologues {

  /** The maximum operand stack of these prologues. */
  static final int MAX_STACK = 4;

  private static final String TRUSTS =
      "([Ljava/security/cert/X509Certificate;Ljava/lang/Object;Z)Z";
  private static final String AS_LIST = "([Ljava/lang/Object;)Ljava/util/List;";

  private static final String HOOK = "java/net/CachetteHook";
  private static final String OBJECT = "java/lang/Object";
  private static final String THROWABLE = "java/lang/Throwable";

  private Prologues() {}

  static void write(WeavePoint.Hook hook, String descriptor, MethodVisitor method) {
    switch (hook) {
      case CONNECT -> connect(method, 0, 1);
      case CONNECT_CHANNEL -> connect(method, 0, 2);
      case RESOLVE -> resolve(method);
      case RESOLVE_PROMISE -> resolve(method, descriptor, false);
      case RESOLVE_PROMISE_OF_ALL -> resolve(method, descriptor, true);
      case TRUST -> trust(method);
      case TRUST_OF_SERVER -> trustOfServer(method);
      case TRUST_WITH_CHAIN -> trustWithChain(method);
      default -> throw new IllegalArgumentException("no prologue for " + hook);
    }
  }

  /** {@code remote = CachetteHook.connect(this, remote);}. */
  private static void connect(MethodVisitor method, int socket, int remote) {
    method.visitVarInsn(Opcodes.ALOAD, socket);
    method.visitVarInsn(Opcodes.ALOAD, remote);
    ask(method, "connect", "(Ljava/lang/Object;Ljava/net/SocketAddress;)Ljava/net/SocketAddress;");
    method.visitVarInsn(Opcodes.ASTORE, remote);
  }

  /**
   * {@code var found = CachetteHook.resolution(host); if (found != null) return found instanceof
   * Throwable ? promise.setFailure(found) : promise.setSuccess(found);}.
   *
   * @param descriptor the type of the promise, which differs in every copy of Netty
   * @param all whether a list is needed, else the first address
   */
  private static void resolve(MethodVisitor method, String descriptor, boolean all) {
    String promise = Type.getArgumentTypes(descriptor)[1].getInternalName();
    Label unknown = new Label();
    Label addresses = new Label();
    method.visitVarInsn(Opcodes.ALOAD, 1);
    ask(method, "resolution", "(Ljava/lang/String;)Ljava/lang/Object;");
    method.visitInsn(Opcodes.DUP);
    method.visitJumpInsn(Opcodes.IFNULL, unknown);
    method.visitInsn(Opcodes.DUP);
    method.visitTypeInsn(Opcodes.INSTANCEOF, THROWABLE);
    method.visitJumpInsn(Opcodes.IFEQ, addresses);
    method.visitTypeInsn(Opcodes.CHECKCAST, THROWABLE);
    complete(method, promise, "setFailure", "(Ljava/lang/Throwable;)L" + promise + ";");
    method.visitLabel(addresses);
    method.visitFrame(Opcodes.F_SAME1, 0, null, 1, new Object[] {OBJECT});
    method.visitTypeInsn(Opcodes.CHECKCAST, "[Ljava/net/InetAddress;");
    if (all) {
      method.visitMethodInsn(Opcodes.INVOKESTATIC, "java/util/Arrays", "asList", AS_LIST, false);
    } else {
      method.visitInsn(Opcodes.ICONST_0);
      method.visitInsn(Opcodes.AALOAD);
    }
    complete(method, promise, "setSuccess", "(Ljava/lang/Object;)L" + promise + ";");
    method.visitLabel(unknown);
    method.visitFrame(Opcodes.F_SAME1, 0, null, 1, new Object[] {OBJECT});
    method.visitInsn(Opcodes.POP);
  }

  /** Emits {@code promise.name(value)}; the value is on the stack. */
  private static void complete(
      MethodVisitor method, String promise, String name, String descriptor) {
    method.visitVarInsn(Opcodes.ALOAD, 2);
    method.visitInsn(Opcodes.SWAP);
    method.visitMethodInsn(Opcodes.INVOKEINTERFACE, promise, name, descriptor, true);
    method.visitInsn(Opcodes.ARETURN);
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
    ask(method, "trusts", TRUSTS);
    method.visitJumpInsn(Opcodes.IFEQ, unknown);
    method.visitInsn(Opcodes.RETURN);
    goOn(method, unknown);
  }

  /** {@code if (CachetteHook.trusts(chain, connection, !ofServer)) return;}. */
  private static void trustOfServer(MethodVisitor method) {
    Label unknown = new Label();
    method.visitVarInsn(Opcodes.ALOAD, 1);
    method.visitVarInsn(Opcodes.ALOAD, 3);
    method.visitVarInsn(Opcodes.ILOAD, 4);
    method.visitInsn(Opcodes.ICONST_1);
    method.visitInsn(Opcodes.IXOR);
    ask(method, "trusts", TRUSTS);
    method.visitJumpInsn(Opcodes.IFEQ, unknown);
    method.visitInsn(Opcodes.RETURN);
    goOn(method, unknown);
  }

  /** {@code if (CachetteHook.trusts(chain, session, ofClient)) return Arrays.asList(chain);}. */
  private static void trustWithChain(MethodVisitor method) {
    Label unknown = new Label();
    method.visitVarInsn(Opcodes.ALOAD, 1);
    method.visitVarInsn(Opcodes.ALOAD, 3);
    method.visitVarInsn(Opcodes.ILOAD, 5);
    ask(method, "trusts", TRUSTS);
    method.visitJumpInsn(Opcodes.IFEQ, unknown);
    method.visitVarInsn(Opcodes.ALOAD, 1);
    method.visitMethodInsn(Opcodes.INVOKESTATIC, "java/util/Arrays", "asList", AS_LIST, false);
    method.visitInsn(Opcodes.ARETURN);
    goOn(method, unknown);
  }

  private static void goOn(MethodVisitor method, Label label) {
    method.visitLabel(label);
    method.visitFrame(Opcodes.F_SAME, 0, null, 0, null);
    // Separates this frame from one at the beginning of the method.
    method.visitInsn(Opcodes.NOP);
  }

  private static void ask(MethodVisitor method, String name, String descriptor) {
    method.visitMethodInsn(Opcodes.INVOKESTATIC, HOOK, name, descriptor, false);
  }
}
