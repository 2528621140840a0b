namespace Daxlin.Service.Nodes;

/// <summary>Keeps services that share a database from doing the same work at once.</summary>
public abstract class Leases
{
    public const string Capture = "capture";
    public const string Delivery = "delivery";
    public const string Rehearsal = "rehearsal";
    public const string Source = "source";
    public const string Answer = "answer";
    public const string Notice = "notice";
    public const string Letter = "letter";
    public const string Digest = "digest";

    /// <summary>Takes a work for this service. It is renewed until <see cref="End"/>, or until the service dies.</summary>
    /// <returns>False if another has it.</returns>
    public abstract Task<bool> Take(string work, int of, CancellationToken cancel);

    /// <summary>Lets others have a work again; what is not held is let go of all the same.</summary>
    public abstract Task End(string work, int of, CancellationToken cancel);
}
