namespace Daxlin.Service.Storage;

/// <summary>Something that came from a source, a file or a message, and what became of it. It is never taken again.</summary>
public sealed class SourceItem : IMailedOnce
{
    public int Id { get; set; }

    /// <summary>The name of the source.</summary>
    public required string Source { get; set; }

    /// <summary>The hash of what it is known by in its source, so that it is taken once: a file's place and bytes, a message's id and body. At most one of each.</summary>
    public required string Key { get; set; }

    /// <summary>What it was called: a file's place below the source's folder, a message's subject.</summary>
    public required string Name { get; set; }

    /// <summary>The hash of a file's place, size and time, by which one that stays where it is is known without reading it; empty for a message.</summary>
    public string Stamp { get; set; } = "";

    /// <summary>Whom a message is from; empty for a file.</summary>
    public string From { get; set; } = "";

    public required DateTime At { get; set; }

    /// <summary>Its bytes as they came; empty for one that was too large to be kept.</summary>
    public string Sha256 { get; set; } = "";

    public long Size { get; set; }

    /// <summary>Into which batch its documents went; null if none did.</summary>
    public int? BatchId { get; set; }

    /// <summary>How many documents of it were taken in.</summary>
    public int Documents { get; set; }

    /// <summary>How many parts of it were left out, or it as a whole.</summary>
    public int LeftOut { get; set; }

    /// <summary>Each part and what became of it: a JSON list of <see cref="Daxlin.Service.Sources.SourcePart"/>.</summary>
    public string Parts { get; set; } = "[]";

    /// <summary>What it states that its invoices come to: a JSON list of <see cref="Daxlin.Core.Posting.StatedTotal"/>.</summary>
    public string Stated { get; set; } = "[]";

    /// <summary>Says that what it states is of the files beside it, not of what is in it: it is a cover sheet in a folder.</summary>
    public bool IsCover { get; set; }

    /// <summary>How it stands with the answer to a message: empty where nobody is to be answered.</summary>
    public MailState AnswerState { get; set; }

    /// <summary>Whom it goes to.</summary>
    public string AnswerTo { get; set; } = "";

    /// <summary>The message's id, which the answer is to; empty for none.</summary>
    public string MessageId { get; set; } = "";

    /// <summary>What the mail server said, or why there is no answer.</summary>
    public string AnswerSays { get; set; } = "";

    public DateTime? AnsweredAt { get; set; }

    /// <summary>How often it was tried in vain, and when it is tried next.</summary>
    public int AnswerAttempts { get; set; }
    public DateTime? AnswerNextAt { get; set; }

    MailState IMailedOnce.State { get => AnswerState; set => AnswerState = value; }
    string IMailedOnce.Says { get => AnswerSays; set => AnswerSays = value; }
    int IMailedOnce.Attempts { get => AnswerAttempts; set => AnswerAttempts = value; }
    DateTime? IMailedOnce.NextAt { get => AnswerNextAt; set => AnswerNextAt = value; }
    DateTime? IMailedOnce.SentAt { get => AnsweredAt; set => AnsweredAt = value; }
}
