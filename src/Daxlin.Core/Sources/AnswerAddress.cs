namespace Daxlin.Core.Sources;

/// <summary>Whom an answer to a message goes to.</summary>
/// <param name="To">Empty for nobody.</param>
/// <param name="Says">Why nobody is answered, where somebody could have been.</param>
public sealed record AnswerAddress(string To, string Says)
{
    /// <summary>Where nobody is to be answered.</summary>
    public static AnswerAddress Nobody { get; } = new("", "");

    /// <param name="rule">By which the message was taken; null for none.</param>
    public static AnswerAddress Of(MailFacts message, MailboxSource source, MailRule? rule)
    {
        if (source.Answer is not { } answer || rule is { IsAnswered: false })
            return Nobody;
        if (message.ReplyTo.Concat(message.From).FirstOrDefault() is not { Length: > 0 } to)
            return new("", "Nobody is answered: the message names no sender.");
        if (to.Equals(answer.Line.From, StringComparison.OrdinalIgnoreCase) || to.Equals(source.User, StringComparison.OrdinalIgnoreCase))
            return new("", "Nobody is answered: the message comes from the address that answers.");
        return AutomaticMail.SignOf(message) is { } sign ? new("", $"Nobody is answered: a program sent it by itself ({sign}).") : new(to, "");
    }
}
