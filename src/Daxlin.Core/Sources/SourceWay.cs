using System.Collections.Immutable;

namespace Daxlin.Core.Sources;

/// <summary>How a source is looked at. Passwords are named, never told: they are kept apart from documents.</summary>
public abstract record SourceWay
{
    /// <summary>The key in documents: <c>folder</c> or <c>mailbox</c>.</summary>
    public abstract string Word { get; }

    /// <summary>Where that is, in a line without anything secret.</summary>
    public abstract string Place { get; }

    /// <summary>What is taken from it, and what becomes of what was taken, in sentences.</summary>
    public abstract ImmutableArray<string> Says { get; }

    /// <summary>The names of the secrets that it needs.</summary>
    public virtual IEnumerable<string> Secrets => [];
}
