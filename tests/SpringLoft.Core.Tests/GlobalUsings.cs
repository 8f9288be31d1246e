global using NodaTime;
