using Daxlin.Core.Sources;
using MailKit;

namespace Daxlin.Service.Sources.Mailboxes;

/// <summary>Tells messages that programs send by themselves: who answers those is answered in turn, for ever (RFC 3834).</summary>
internal static class MailOfPrograms
{
    /// <summary>The header lines that say so.</summary>
    public static string[] Headers { get; } = ["Auto-Submitted", "Precedence", "List-Id", "List-Unsubscribe", "Return-Path", "X-Auto-Response-Suppress", "X-Autoreply", "Feedback-ID"];

    /// <summary>Whom an answer to a message goes to, or why it goes to nobody.</summary>
    public static ComingAnswer AnswerTo(IMessageSummary message, MailboxSource way, MailAnswer answer)
    {
        var to = (message.Envelope?.ReplyTo.Mailboxes.FirstOrDefault() ?? message.Envelope?.From.Mailboxes.FirstOrDefault())?.Address ?? "";
        if (to.Length == 0)
            return ComingAnswer.Nobody with { Says = "Nobody is answered: the message names no sender." };
        if (to.Equals(answer.Line.From, StringComparison.OrdinalIgnoreCase) || to.Equals(way.User, StringComparison.OrdinalIgnoreCase))
            return ComingAnswer.Nobody with { Says = "Nobody is answered: the message comes from the address that answers." };
        return SignOf(message) is { } sign ? ComingAnswer.Nobody with { Says = $"Nobody is answered: a program sent it by itself ({sign})." } : new ComingAnswer(to, message.Envelope?.MessageId ?? "", "");
    }

    private static string? SignOf(IMessageSummary message)
    {
        foreach (var header in message.Headers ?? [])
        {
            var value = header.Value.Trim();
            var isSign = header.Field.ToUpperInvariant() switch
            {
                "AUTO-SUBMITTED" => !value.Equals("no", StringComparison.OrdinalIgnoreCase),
                "PRECEDENCE" => value.ToUpperInvariant() is "BULK" or "LIST" or "JUNK" or "AUTO_REPLY",
                "RETURN-PATH" => value == "<>",
                "LIST-ID" or "LIST-UNSUBSCRIBE" or "X-AUTO-RESPONSE-SUPPRESS" or "X-AUTOREPLY" or "FEEDBACK-ID" => true,
                _ => false,
            };
            if (isSign)
                return header.Field;
        }
        return (message.Envelope?.From.Mailboxes.FirstOrDefault()?.Address.Split('@')[0].ToUpperInvariant()) is "MAILER-DAEMON" or "POSTMASTER" or "NOREPLY" or "NO-REPLY" ? "its sender's name" : null;
    }
}
