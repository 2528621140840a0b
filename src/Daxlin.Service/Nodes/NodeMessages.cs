namespace Daxlin.Service.Nodes;

/// <summary>What services that share a database tell each other: that something waits, or has moved on. It is all in the database as well, so a message that is lost costs a moment.</summary>
public abstract class NodeMessages
{
    private readonly Lock guard = new();
    private readonly List<(string Topic, Action<int> Hear)> listeners = [];

    /// <summary>Tells the others.</summary>
    /// <param name="topic">What kind of thing it is about: <c>batch</c>.</param>
    /// <param name="of">The number of the thing.</param>
    public abstract void Tell(string topic, int of);

    /// <summary>Has something done with each message of another. It must not take long.</summary>
    public void Listen(string topic, Action<int> hear)
    {
        lock (guard)
            listeners.Add((topic, hear));
    }

    protected void Hear(string topic, int of)
    {
        (string Topic, Action<int> Hear)[] all;
        lock (guard)
            all = [.. listeners.Where(one => one.Topic == topic)];
        foreach (var (_, hear) in all)
            hear(of);
    }
}
