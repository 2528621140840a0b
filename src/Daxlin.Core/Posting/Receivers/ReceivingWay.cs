namespace Daxlin.Core.Posting.Receivers;

/// <summary>How a receiver is reached. Passwords and keys are named, never told: they are kept apart from documents.</summary>
public abstract record ReceivingWay
{
    /// <summary>The key in documents: <c>folder</c>, <c>webhook</c>, <c>mail</c>, <c>sftp</c> or <c>postgresql</c>.</summary>
    public abstract string Word { get; }

    /// <summary>Where that is, in a line without anything secret.</summary>
    public abstract string Place { get; }

    /// <summary>What is done with a run on it, in a sentence.</summary>
    public abstract string Says { get; }

    /// <summary>The names of the secrets that it needs.</summary>
    public virtual IEnumerable<string> Secrets => [];
}
