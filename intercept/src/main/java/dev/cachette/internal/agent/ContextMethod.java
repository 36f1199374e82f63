// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import org.objectweb.asm.Label;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;
import org.objectweb.asm.Type;

/** A method through which work goes on, with a call of {@code java.net.CachetteContext}. */
final class ContextMethod extends MethodVisitor {

  private static final String CONTEXT = "java/net/CachetteContext";
  private static final String HOOK = "java/net/CachetteHook";
  private static final String INCOMING = "java/net/CachetteIncoming";
  private static final String CONNECTING = "java/net/CachetteConnecting";
  private static final String TIMERS = "java/net/CachetteTimers";

  private static final String WITH_OBJECT = "(Ljava/lang/Object;)V";

  /** The operands that the calls need besides the method's own. */
  private static final int MORE_STACK = 3;

  private final ContextPoint point;
  private final String className;
  private final ContextPoint.Hook hook;
  private final Type[] parameters;
  private final Label begin = new Label();

  /**
   * Creates it.
   *
   * @param className the name of the class, with slashes
   * @param descriptor the parameters and the result of the method
   */
  ContextMethod(ContextPoint point, String className, String descriptor, MethodVisitor next) {
    super(Opcodes.ASM9, next);
    this.className = className;
    this.point = point;
    this.hook = point.hook();
    this.parameters = Type.getArgumentTypes(descriptor);
  }

  @Override
  public void visitCode() {
    super.visitCode();
    switch (hook) {
      case WROTE -> tell("wrote", 0);
      case WRITES -> {
        JavaClient.writeCallAndChannel(point.className(), mv);
        call("writes", "(Ljava/lang/Object;Ljava/lang/Object;)V");
      }
      case STREAMS -> {
        JavaClient.writeCallAndChannel(point.className(), mv);
        super.visitVarInsn(Opcodes.ILOAD, 1);
        call("streams", "(Ljava/lang/Object;Ljava/lang/Object;I)V");
      }
      case RUNS_CALL -> {
        OkHttp.writeCall(className, mv);
        call("began", WITH_OBJECT);
      }
      case CONNECTED -> {
        super.visitVarInsn(Opcodes.ALOAD, 0);
        super.visitVarInsn(Opcodes.ILOAD, 2);
        super.visitMethodInsn(
            Opcodes.INVOKESTATIC, HOOK, "connected", "(Ljava/lang/Object;Z)V", false);
      }
      case CAPTURED -> tell("captured", 1);
      case SELECTS -> call("selects", "()V");
      case TIMER -> {
        super.visitVarInsn(Opcodes.ALOAD, 1);
        timers("begins", WITH_OBJECT);
      }
      case READS -> {
        thisAndTimeout();
        timers("reads", "(Ljava/lang/Object;J)V");
      }
      case CONNECTS -> {
        super.visitLabel(begin);
        thisAndTimeout();
        connecting("begins", "(Ljava/lang/Object;J)V");
      }
      case MADE, TAKEN, RUNS, READ -> {
        // Not at its beginning.
      }
      default -> throw new IllegalArgumentException("no prologue for " + hook);
    }
  }

  @Override
  public void visitInsn(int opcode) {
    if (hook == ContextPoint.Hook.TAKEN && opcode == Opcodes.ARETURN) {
      super.visitInsn(Opcodes.DUP);
      call("taken", WITH_OBJECT);
    } else if (hook == ContextPoint.Hook.MADE && opcode == Opcodes.RETURN) {
      tell("made", 0);
    } else if (hook == ContextPoint.Hook.READS && opcode == Opcodes.IRETURN) {
      super.visitVarInsn(Opcodes.ALOAD, 0);
      timers("read", "(ILjava/lang/Object;)I");
    } else if (hook == ContextPoint.Hook.CONNECTS && opcode == Opcodes.IRETURN) {
      super.visitVarInsn(Opcodes.ALOAD, 0);
      connecting("ends", "(ZLjava/lang/Object;)Z");
    }
    if (hook == ContextPoint.Hook.READ && opcode == Opcodes.IRETURN) {
      incoming("(ILjava/lang/Object;)I");
    } else if (hook == ContextPoint.Hook.READ && opcode == Opcodes.LRETURN) {
      incoming("(JLjava/lang/Object;)J");
    }
    super.visitInsn(opcode);
  }

  private void incoming(String descriptor) {
    super.visitVarInsn(Opcodes.ALOAD, 0);
    super.visitMethodInsn(Opcodes.INVOKESTATIC, INCOMING, "read", descriptor, false);
  }

  @Override
  public void visitMethodInsn(
      int opcode, String owner, String name, String descriptor, boolean isInterface) {
    boolean runs = hook == ContextPoint.Hook.RUNS && name.equals("run") && descriptor.equals("()V");
    if (runs) {
      super.visitInsn(Opcodes.DUP);
      call("began", WITH_OBJECT);
    }
    super.visitMethodInsn(opcode, owner, name, descriptor, isInterface);
    if (runs) {
      call("done", "()V");
    }
  }

  @Override
  public void visitMaxs(int maxStack, int maxLocals) {
    if (hook == ContextPoint.Hook.CONNECTS) {
      throwWhatItsClientGets();
    }
    super.visitMaxs(maxStack + MORE_STACK, maxLocals);
  }

  /** {@code catch (Throwable failure) { throw CachetteConnecting.fails(failure, this); }}. */
  private void throwWhatItsClientGets() {
    Label end = new Label();
    Label handler = new Label();
    super.visitTryCatchBlock(begin, end, handler, "java/lang/Throwable");
    super.visitLabel(end);
    super.visitLabel(handler);
    super.visitFrame(
        Opcodes.F_FULL,
        parameters.length + 1,
        variables(),
        1,
        new Object[] {"java/lang/Throwable"});
    super.visitVarInsn(Opcodes.ALOAD, 0);
    connecting("fails", "(Ljava/lang/Throwable;Ljava/lang/Object;)Ljava/lang/Throwable;");
    super.visitInsn(Opcodes.ATHROW);
  }

  /** Returns the types of {@code this} and the parameters, for a frame: of classes and longs. */
  private Object[] variables() {
    Object[] types = new Object[parameters.length + 1];
    types[0] = className;
    for (int at = 0; at < parameters.length; at++) {
      boolean isLong = parameters[at].getSort() == Type.LONG;
      types[at + 1] = isLong ? Opcodes.LONG : parameters[at].getInternalName();
    }
    return types;
  }

  /** The timeout is the last parameter. */
  private void thisAndTimeout() {
    int timeout = 1;
    for (int at = 0; at < parameters.length - 1; at++) {
      timeout += parameters[at].getSize();
    }
    super.visitVarInsn(Opcodes.ALOAD, 0);
    super.visitVarInsn(Opcodes.LLOAD, timeout);
  }

  private void tell(String name, int variable) {
    super.visitVarInsn(Opcodes.ALOAD, variable);
    call(name, WITH_OBJECT);
  }

  private void connecting(String name, String descriptor) {
    super.visitMethodInsn(Opcodes.INVOKESTATIC, CONNECTING, name, descriptor, false);
  }

  private void timers(String name, String descriptor) {
    super.visitMethodInsn(Opcodes.INVOKESTATIC, TIMERS, name, descriptor, false);
  }

  private void call(String name, String descriptor) {
    super.visitMethodInsn(Opcodes.INVOKESTATIC, CONTEXT, name, descriptor, false);
  }
}
