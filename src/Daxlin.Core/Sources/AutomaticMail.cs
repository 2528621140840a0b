using System.Collections.Immutable;

namespace Daxlin.Core.Sources;

/// <summary>Tells messages that programs send by themselves: who answers those is answered in turn, for ever (RFC 3834).</summary>
public static class AutomaticMail
{
    /// <summary>The header lines that say so.</summary>
    public static ImmutableArray<string> Headers { get; } = ["Auto-Submitted", "Precedence", "List-Id", "List-Unsubscribe", "Return-Path", "X-Auto-Response-Suppress", "X-Autoreply", "Feedback-ID"];

    private static readonly string[] Programs = ["MAILER-DAEMON", "POSTMASTER", "NOREPLY", "NO-REPLY"];

    /// <summary>By what it shows; null for a message that a person sent.</summary>
    /// <remarks><c>Auto-Submitted: no</c> is what a person's message may say; an empty return path (<c>&lt;&gt;</c>) is a bounce's.</remarks>
    public static string? SignOf(MailFacts message)
    {
        foreach (var (field, said) in message.Headers)
        {
            var value = said.Trim();
            var isSign = field.ToUpperInvariant() switch
            {
                "AUTO-SUBMITTED" => !value.Equals("no", StringComparison.OrdinalIgnoreCase),
                "PRECEDENCE" => value.ToUpperInvariant() is "BULK" or "LIST" or "JUNK" or "AUTO_REPLY",
                "RETURN-PATH" => value == "<>",
                "LIST-ID" or "LIST-UNSUBSCRIBE" or "X-AUTO-RESPONSE-SUPPRESS" or "X-AUTOREPLY" or "FEEDBACK-ID" => true,
                _ => false,
            };
            if (isSign)
                return field;
        }
        return message.From is [var sender, ..] && Programs.Contains(sender.Split('@')[0].ToUpperInvariant()) ? "its sender's name" : null;
    }
}
