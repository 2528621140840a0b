using Daxlin.Core.Posting.Receivers;

namespace Daxlin.Core.Sources;

/// <summary>What whoever sent a message is told once all of it is captured.</summary>
/// <param name="Line">The server that it goes by, and who it is from; whom it is for each message says itself.</param>
/// <param name="Text">With <see cref="AnswerText"/>'s names in braces.</param>
/// <param name="Attached">Whether the rows of each document are attached as a table, and in which form.</param>
public sealed record MailAnswer(MailWay Line, string Text, AnswerTable Attached)
{
    public const string UsualSubject = "Re: {subject}";

    public const string UsualText = """
        Thank you for “{subject}”.

        {list}

        {counts}
        """;
}
