package app.zolvan.server.scheme;

import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.RestControllerAdvice;

/** Answers a command that is sent again as the first time, with the state that the project is in by now. */
@RestControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE)
class DoneBeforeAdvice {
    private final CommandService commands;

    DoneBeforeAdvice(CommandService commands) {
        this.commands = commands;
    }

    @ExceptionHandler
    @ResponseBody
    ProjectState again(DoneBefore done) {
        return commands.state(done.edit());
    }
}
